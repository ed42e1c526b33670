import * as z from 'zod';
import { EXPORT_KIND_IDS } from '@core/formats';
import { parsePiece, resolveTimes } from '@core/piece';
import type { Piece } from '@core/piece';
import { ROW_SCOPE_IDS, prepareRows } from '@core/roster';
import { AppError } from '../platform/errors';
import { mistakesIn } from '../render/mistakes-in';
import type { ServerContext } from './context';
import { renderInputFor, renderToStore } from './render-to-store';
import type { JobRun } from './render-to-store';

const rowPayload = z.object({
  source: z.string(),
  groupId: z.string(),
  scope: z.enum(ROW_SCOPE_IDS),
  values: z.record(z.string(), z.string()),
  formatId: z.string(),
  kind: z.enum(EXPORT_KIND_IDS),
  isAnyway: z.boolean(),
  fileName: z.string(),
});

/** How many mistakes are named. */
const MOST_TOLD = 3;

/** The moment at which a still shows a row: half-way through its group. */
function halfWay(piece: Piece, groupId: string, analysis: Parameters<typeof resolveTimes>[1]): number {
  const times = resolveTimes(piece, analysis);
  const group = piece.layers.find((layer) => layer.id === groupId);
  return group ? (times.timeOf(group.start) + times.timeOf(group.end)) / 2 : times.end / 2;
}

/**
 * Renders one row of a roster: the document its batch is made from, filled with its words, looked through for mistakes
 * and then rendered as any other. @throws AppError ROW_NOT_MADE, ROW_HAS_MISTAKES, and as renders do.
 */
export async function renderRow(
  context: ServerContext,
  payload: unknown,
  job: JobRun,
): Promise<Record<string, unknown>> {
  const { source, groupId, scope, values, formatId, kind, isAnyway } = rowPayload.parse(payload);
  const parsed = parsePiece(await context.jobs.source(source));
  if (!parsed.ok) throw new AppError('STORED_UNREADABLE', parsed.problem.detail);
  const { input: base } = await renderInputFor(context, parsed.piece, formatId);
  const made = prepareRows(parsed.piece, groupId, scope, base.analysis)(values);
  if (!made.ok) throw new AppError('ROW_NOT_MADE', made.why);
  const stored = await renderInputFor(context, made.piece, formatId);
  if (!isAnyway) {
    const mistakes = await mistakesIn(stored.input, context.config.assets, job.signal);
    if (mistakes.length > 0) throw new AppError('ROW_HAS_MISTAKES', mistakes.slice(0, MOST_TOLD).join(' '));
  }
  const at = halfWay(made.piece, groupId, stored.input.analysis);
  return renderToStore(context, job, kind, { ...stored, at });
}
