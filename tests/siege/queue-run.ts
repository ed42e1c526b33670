import type { ChildProcess } from 'node:child_process';
import { readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { EXPORT_KINDS } from '@core/formats';
import type { ExportKindId } from '@core/formats';
import type { Piece } from '@core/piece';
import { freeMoment } from '@core/time';
import { LOCAL } from '../../server/features/pieces/repository';
import { collect } from '../../server/jobs/collect';
import { framesOf } from '../helpers/frames-of';
import type { Random } from '../helpers/random';
import { rosterPiece } from '../helpers/roster-piece';
import { json } from '../helpers/server';
import type { TestServer } from '../helpers/server';
import { startWorkerOf, until } from '../helpers/worker-process';

export interface QueueRun {
  readonly states: Readonly<Record<string, number>>;
  /** Files in the store that are no frame pictures, once what died workers left behind has been collected. */
  readonly files: number;
  /** Renders whose file is not there, not as large as it was made, or not of the frames it should have. */
  readonly broken: readonly string[];
  readonly kills: number;
  readonly attempts: number;
  /** Renders of parts that are still in the list. */
  readonly partsLeft: number;
}

/** What is rendered in turn. Long ones are made in parts, by whichever worker is free. */
const KINDS: readonly ExportKindId[] = ['mp4', 'png-sequence', 'webm', 'gif', 'mp4', 'lottie'];
const SECONDS = [2, 3, 24];
const RATE = 30;
const SMALL = { width: 160, height: 90 };

interface Job {
  readonly id: string;
  readonly state: string;
  readonly exportKind: ExportKindId;
  readonly pieceId: string;
}

function pieceOf(name: string, seconds: number): Piece {
  const { piece } = rosterPiece(name);
  const formats = piece.formats.map((format) => (format.id === 'wide' ? { ...format, ...SMALL } : format));
  return { ...piece, formats, end: freeMoment(seconds) };
}

/** Renders of several pieces and kinds while two workers are killed at random moments; looks at each file in the end. */
export async function queueUnderKills(
  server: TestServer,
  count: number,
  kills: number,
  random: Random,
): Promise<QueueRun> {
  const { context } = server;
  const pieces = SECONDS.map((seconds, i) => pieceOf(`queue${i}`, seconds));
  for (const piece of pieces) await context.pieces.create(LOCAL, piece, '');
  const asked: { id: string; seconds: number }[] = [];
  for (let i = 0; i < count; i++) {
    // Every fourth is a long one.
    const which = i % 4 === 3 ? 2 : i % 2;
    const kind = which === 2 ? 'mp4' : KINDS[i % KINDS.length]!;
    const request = { pieceId: pieces[which]!.id, formatId: 'wide', kind, fileName: `render ${i}` };
    const answer = await server.request('/api/jobs/exports', json('POST', request));
    if (answer.status !== 201) throw new Error(`a render was not taken: ${JSON.stringify(answer.body)}`);
    asked.push({ id: (answer.body as unknown as Job).id, seconds: SECONDS[which]! });
  }
  const jobOf = async (id: string): Promise<Job> => (await server.request(`/api/jobs/${id}`)).body as unknown as Job;
  const look = () => Promise.all(asked.map(({ id }) => jobOf(id)));
  const isOver = async () => (await look()).every(({ state }) => !['queued', 'running'].includes(state));

  const workers: ChildProcess[] = [startWorkerOf(server), startWorkerOf(server)];
  let killed = 0;
  try {
    while (killed < kills && !(await isOver())) {
      await new Promise((resolve) => setTimeout(resolve, random.int(600, 3500)));
      const which = random.int(0, 1);
      workers[which]!.kill('SIGKILL');
      workers[which] = startWorkerOf(server);
      killed++;
    }
    await until('all renders are over', isOver, 900_000);
  } finally {
    for (const worker of workers) worker.kill('SIGKILL');
  }
  // Files and jobs of these pieces are in use: only what belongs to nobody goes.
  await collect(context, { deletedPiece: 1000, media: 1000, file: -1, job: 1000 });
  const states: Record<string, number> = {};
  const broken: string[] = [];
  for (const [i, { id, seconds }] of asked.entries()) {
    const { state, exportKind } = await jobOf(id);
    states[state] = (states[state] ?? 0) + 1;
    const { result } = await context.jobs.get(id, null);
    const file = join(server.dir, 'exports', String(result?.file));
    if (state !== 'succeeded' || statSync(file, { throwIfNoEntry: false })?.size !== result?.bytes) broken.push(`${i}`);
    else if (exportKind === 'mp4' && framesOf(file) !== seconds * RATE) broken.push(`${i}`);
  }
  const endings = new Set<string>(KINDS.map((kind) => EXPORT_KINDS[kind].extension));
  const [counted] = (await context.source.query(
    `SELECT sum(attempts) FILTER (WHERE kind = 'export')::int AS attempts,
            count(*) FILTER (WHERE kind = 'part')::int AS parts FROM job`,
  )) as { attempts: number; parts: number }[];
  return {
    states,
    files: readdirSync(join(server.dir, 'exports')).filter((name) => endings.has(name.split('.').at(-1)!)).length,
    broken,
    kills: killed,
    attempts: counted?.attempts ?? 0,
    partsLeft: counted?.parts ?? 0,
  };
}
