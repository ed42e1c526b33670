import type { ChildProcess } from 'node:child_process';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { LOCAL } from '../../server/features/pieces/repository';
import { renderRows, rowFiles } from '../../server/features/rosters/render-rows';
import { collect } from '../../server/jobs/collect';
import { framesOf } from '../helpers/frames-of';
import type { Random } from '../helpers/random';
import { rosterOf, rosterPiece } from '../helpers/roster-piece';
import type { TestServer } from '../helpers/server';
import { startWorkerOf, until } from '../helpers/worker-process';

export interface RosterRun {
  readonly queued: number;
  readonly states: Readonly<Record<string, number>>;
  /** Files in the store, whatever they are, once what died workers left behind has been collected. */
  readonly files: number;
  /** Of how many different names they are. */
  readonly different: number;
  /** Files that have not as many frames as the piece. */
  readonly broken: string[];
  readonly attempts: number;
}

/** Renders a roster while its worker is killed at random moments, and looks at every file there is in the end. */
export async function rosterUnderKills(
  server: TestServer,
  rowCount: number,
  kills: number,
  random: Random,
): Promise<RosterRun> {
  const { context } = server;
  const { piece, group, slot } = rosterPiece(`run${rowCount}`);
  await context.pieces.create(LOCAL, piece, '');
  const names = Array.from({ length: rowCount }, (_, i) => `Flyer ${i + 1}`);
  await context.rosters.keep(LOCAL, piece.id, group.id, rosterOf(names, slot), 0);
  const request = { formatIds: ['wide'], kind: 'mp4', scope: 'whole', pattern: '{Name}' } as const;
  const rows = names.map((_, i) => i);
  const wanted = { rows, revision: 1, isAnyway: true };
  const queued = await renderRows(context, LOCAL, piece.id, group.id, request, wanted);
  const look = () => rowFiles(context, LOCAL, piece.id, group.id, request);
  const done = async () => (await look()).filter(({ job }) => job?.state === 'succeeded').length;

  let worker: ChildProcess = startWorkerOf(server);
  try {
    for (let kill = 1; kill <= kills; kill++) {
      // Spread over the run; the moment within a render is left to chance.
      const from = Math.floor(((kill - 0.5) * rowCount) / (kills + 1));
      await until(`${from} rows are there`, async () => (await done()) >= from, 600_000);
      await new Promise((resolve) => setTimeout(resolve, random.int(0, 1500)));
      worker.kill('SIGKILL');
      worker = startWorkerOf(server);
    }
    const over = async () => (await look()).every(({ job }) => job && !['queued', 'running'].includes(job.state));
    await until('all rows are over', over, 900_000);
  } finally {
    worker.kill('SIGKILL');
  }
  // What died workers were writing belongs to nobody; all else is in use and stays.
  await collect(context, { deletedPiece: 1000, media: 1000, file: -1, job: 1000 });
  const states: Record<string, number> = {};
  for (const { job } of await look()) states[job?.state ?? 'missing'] = (states[job?.state ?? 'missing'] ?? 0) + 1;
  const stored = readdirSync(join(server.dir, 'exports'));
  const films = stored.filter((name) => name.endsWith('.mp4'));
  const attempts = (await context.source.query(`SELECT sum(attempts)::int AS n FROM job WHERE batch IS NOT NULL`)) as {
    n: number;
  }[];
  return {
    queued,
    states,
    files: films.length,
    different: new Set(films.map((name) => name.split('.')[0])).size,
    broken: films.filter((name) => framesOf(join(server.dir, 'exports', name)) !== 90),
    attempts: attempts[0]?.n ?? 0,
  };
}
