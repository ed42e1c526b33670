import { execFileSync, spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, it } from '@jest/globals';
import { EMPTY_HISTORY, createLayer, ownTrack } from '@core/piece';
import type { Piece } from '@core/piece';
import { freeMoment } from '@core/time';
import { browserClock } from '../../web/src/saving/clock';
import { createJournal } from '../../web/src/saving/journal';
import { decideOpening } from '../../web/src/saving/opening';
import type { StoredPiece } from '../../web/src/saving/opening';
import { createSaver } from '../../web/src/saving/saver';
import type { Saver } from '../../web/src/saving/saver';
import { createSend } from '../../web/src/saving/server-saves';
import { countingIds, newPiece } from '../helpers/documents';
import { createFakeStore } from '../helpers/fake-saves';
import { createRandom } from '../helpers/random';
import { processesOf } from '../helpers/real-server';

/**
 * Random kills of server, worker, database and the whole of ./start while people edit and films are rendered.
 * SIEGE_KILLS sets how many. Nothing that was called saved is lost, nothing that was shown is lost, nobody is accused
 * of a conflict, no render is lost or broken.
 */
const KILLS = Number(process.env.SIEGE_KILLS ?? 60);
const random = createRandom(Number(process.env.SIEGE_SEED ?? 20_261_125));
const dir = mkdtempSync(join(tmpdir(), 'estrella-kills-'));
execFileSync('chmod', ['711', dir]);
let start: ChildProcess | null = null;
let url = '';

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));
const freePort = () =>
  new Promise<number>((resolve) => {
    const s = createServer();
    s.listen(0, '127.0.0.1', () => {
      const { port } = s.address() as { port: number };
      s.close(() => resolve(port));
    });
  });
const health = () =>
  fetch(`${url}/api/health`, { signal: AbortSignal.timeout(2000) }).then(
    (r) => r.ok,
    () => false,
  );
const post = (path: string, body: unknown) =>
  fetch(`${url}${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: url },
    body: JSON.stringify(body),
  });

function runStart(port: number): void {
  const { DATABASE_URL: _own, ESTRELLA_TEST_DATABASE_URL: _test, ...env } = process.env;
  start = spawn('bash', ['./start', '--port', String(port), '--data', dir], {
    env: { ...env, ESTRELLA_SEED: '0', ESTRELLA_LOG: 'error' },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
}
async function untilUp(): Promise<void> {
  const end = Date.now() + 90_000;
  while (!(await health())) {
    if (Date.now() > end) throw new Error('the server did not come back');
    await pause(100);
  }
}
afterAll(async () => {
  if (start && start.exitCode === null) {
    start.kill('SIGTERM');
    await new Promise((resolve) => start?.once('exit', resolve));
  }
  rmSync(dir, { recursive: true, force: true });
});

const pgDir = () => {
  try {
    return execFileSync('bash', ['-c', `source scripts/lib.sh; printf %s "$(pg_home '${dir}')/postgres"`]).toString();
  } catch {
    return '';
  }
};
const postmaster = () => {
  try {
    return Number(readFileSync(join(pgDir(), 'postmaster.pid'), 'utf8').split('\n')[0]);
  } catch {
    return 0;
  }
};
const kill = (pid: number) => {
  try {
    if (pid > 1) process.kill(pid, 'SIGKILL');
  } catch {
    /* gone already */
  }
};

/** A person at a desk: edits, now and then reloads, and remembers what was called saved. */
function createEditor(piece: Piece) {
  const store = createFakeStore();
  const journal = createJournal(store);
  const send = createSend((path, init) =>
    fetch(`${url}${path}`, { ...init, headers: { ...(init.headers as Record<string, string>), origin: url } }),
  );
  const tally = { edits: 0, saved: 0, conflicts: 0, lostAfterShown: 0, lostAfterSaved: 0, reloads: 0 };
  const numberOf = (p: Piece) => Number(/\d+$/.exec(p.name)?.[0] ?? 0);
  let visits = 0;
  let current = piece;
  let saver: Saver;
  const fetchStored = async (): Promise<StoredPiece | null> => {
    try {
      const answer = await fetch(`${url}/api/pieces/${piece.id}`, { signal: AbortSignal.timeout(3000) });
      return answer.ok ? ((await answer.json()) as StoredPiece) : null;
    } catch {
      return null;
    }
  };
  const open = async () => {
    const stored = await fetchStored();
    if (stored && numberOf(stored.piece) < tally.saved) tally.lostAfterSaved++;
    const opening = decideOpening(stored, await journal.read(piece.id, 'tab'), []);
    const opened = opening?.opened ?? {
      piece: current,
      history: EMPTY_HISTORY,
      revision: 1,
      unsent: false,
      follows: [],
      conflict: null,
    };
    if (opened.conflict !== null) tally.conflicts++;
    if (numberOf(opened.piece) < tally.edits) tally.lostAfterShown++;
    current = opened.piece;
    saver = createSaver(opened, {
      clock: browserClock,
      send,
      keep: journal.write,
      writer: `visit-${piece.id}-${++visits}`,
      date: () => Date.now(),
      tabId: 'tab',
      report: ({ state }) => {
        if (state === 'conflict') tally.conflicts++;
        if (state === 'saved') tally.saved = numberOf(current);
      },
    });
  };
  return {
    tally,
    open,
    async edit() {
      current = { ...current, name: `edit ${++tally.edits}` };
      saver.changed(current, EMPTY_HISTORY);
      await pause(0);
    },
    async reload() {
      tally.reloads++;
      if (random.unit() < 0.5) saver.leave();
      await pause(5);
      await saver.retire();
      await open();
    },
    async finish() {
      await saver.flush();
      const end = Date.now() + 60_000;
      while (saver.hasUnsent() && Date.now() < end) await pause(200);
      const stored = await fetchStored();
      if (!stored || numberOf(stored.piece) !== tally.edits) tally.lostAfterShown++;
      await saver.retire();
    },
  };
}

function film(name: string): Piece {
  const ids = countingIds(`${name}-`);
  const seconds = 4;
  const layer = createLayer(
    'ellipse',
    { name: 'E', start: freeMoment(0), end: freeMoment(seconds), values: { dimensions: [500, 200] } },
    ids,
  );
  ownTrack(layer, 'rotation').keyframes = [
    { id: 'a', at: freeMoment(0), value: 0, easing: { type: 'linear' } },
    { id: 'b', at: freeMoment(seconds), value: 360, easing: { type: 'linear' } },
  ];
  return {
    ...newPiece(name),
    formats: [{ id: 'wide', name: 'Wide', width: 640, height: 360 }],
    layers: [layer],
    end: freeMoment(seconds),
  };
}

it('kills', async () => {
  const port = await freePort();
  url = `http://127.0.0.1:${port}`;
  runStart(port);
  await untilUp();
  const pieces = [newPiece('One'), newPiece('Two'), newPiece('Three')];
  for (const piece of pieces) await post('/api/pieces', { piece });
  const movie = film('Film');
  await post('/api/pieces', { piece: movie });
  const editors = pieces.map(createEditor);
  for (const editor of editors) await editor.open();
  let isOver = false;
  const working = editors.map(async (editor) => {
    while (!isOver) {
      await editor.edit();
      if (random.unit() < 0.02) await editor.reload();
      await pause(random.int(20, 300));
    }
    await editor.finish();
  });
  const renders: string[] = [];
  const rendering = (async () => {
    while (!isOver) {
      const id = await post('/api/jobs/exports', { pieceId: movie.id, formatId: 'wide' }).then(
        async (r) => (r.ok ? ((await r.json()) as { id: string }).id : null),
        () => null,
      );
      if (id) renders.push(id);
      await pause(random.int(2000, 6000));
    }
  })();
  const killed: Record<string, number> = {};
  let refusedStarts = 0;
  const began = Date.now();
  for (let i = 0; i < KILLS && Date.now() - began < 9 * 60_000; i++) {
    await pause(random.int(200, 2500));
    const target = random.pick([
      'server',
      'worker',
      'worker',
      'database',
      'server and database',
      'everything',
    ] as const);
    killed[target] = (killed[target] ?? 0) + 1;
    if (target === 'worker') for (const pid of processesOf(dir, /worker-main/)) kill(pid);
    if (target.includes('server')) for (const pid of processesOf(dir, /server\/main\.js/)) kill(pid);
    if (target.includes('database')) kill(postmaster());
    if (target === 'everything') {
      const old = start!;
      const gone = new Promise((resolve) => old.once('exit', resolve));
      kill(old.pid ?? 0);
      await gone;
      if (random.unit() < 0.5) {
        kill(postmaster());
        for (const pid of processesOf(dir, /server\/main\.js|worker-main/)) kill(pid);
      }
      // A person starts it again, as soon as can be.
      for (;;) {
        runStart(port);
        const ended = await Promise.race([
          new Promise<number>((resolve) => start?.once('exit', (code) => resolve(code ?? 1))),
          untilUp().then(() => null),
        ]);
        if (ended === null) break;
        refusedStarts++;
        await pause(500);
      }
    } else if (random.unit() < 0.6) await untilUp();
  }
  await untilUp();
  isOver = true;
  await rendering;
  await Promise.all(working);
  // Every render comes to its end.
  const states = new Map<string, { state: string; result: { file: string; frames: number } | null }>();
  const end = Date.now() + 240_000;
  for (const id of renders) {
    for (;;) {
      const job = await fetch(`${url}/api/jobs/${id}`).then(
        (r) => r.json() as Promise<{ state: string; result: { file: string; frames: number } | null }>,
        () => null,
      );
      if (job && job.state !== 'queued' && job.state !== 'running') {
        states.set(id, job);
        break;
      }
      if (Date.now() > end) break;
      await pause(300);
    }
  }
  let broken = 0;
  for (const id of renders) {
    const job = states.get(id);
    if (job?.state !== 'succeeded') continue;
    const file = join(dir, 'check.mp4');
    writeFileSync(file, Buffer.from(await (await fetch(`${url}/api/jobs/${id}/file`)).arrayBuffer()));
    const frames = execFileSync('ffprobe', [
      '-v',
      'error',
      '-count_packets',
      '-select_streams',
      'v:0',
      '-show_entries',
      'stream=nb_read_packets',
      '-of',
      'csv=p=0',
      file,
    ])
      .toString()
      .trim();
    if (frames !== '120') broken++;
  }
  const givenUp = [...states.values()].filter((job) => job.state === 'failed').length;
  const sum = (of: 'edits' | 'reloads' | 'conflicts' | 'lostAfterSaved' | 'lostAfterShown') =>
    editors.reduce((total, editor) => total + editor.tally[of], 0);
  console.log(
    `| kills | edits | reloads | lost after "saved" | lost after shown | false conflicts | renders | lost | broken | given up | starts refused |\n|---|---|---|---|---|---|---|---|---|---|---|\n| ${Object.values(killed).reduce((a, n) => a + n, 0)} (${Object.entries(
      killed,
    )
      .map(([what, n]) => `${what} ${n}`)
      .join(
        ', ',
      )}) | ${sum('edits')} | ${sum('reloads')} | ${sum('lostAfterSaved')} | ${sum('lostAfterShown')} | ${sum('conflicts')} | ${renders.length} | ${renders.length - states.size} | ${broken} | ${givenUp} | ${refusedStarts} |`,
  );
  expect([
    sum('lostAfterSaved'),
    sum('lostAfterShown'),
    sum('conflicts'),
    renders.length - states.size,
    broken,
  ]).toEqual([0, 0, 0, 0, 0]);
}, 1_200_000);
