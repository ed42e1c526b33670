import * as z from 'zod';
import { EXPORT_KIND_IDS, USUAL_SETTINGS, exportSettingsSchema } from '@core/formats';
import { onlyLayers, parsePiece, withoutCaptions } from '@core/piece';
import { secondsSchema } from '@core/time';
import { AppError } from '../platform/errors';
import type { ServerContext } from './context';
import { renderInputFor } from './render-to-store';
import type { StoredInput } from './render-to-store';

/** What is rendered of a piece, by the request and in the job. */
export const whatSchema = z.strictObject({
  /** Seconds of the piece, for kinds that show one moment. */
  at: secondsSchema.default(0),
  /** A part of it; null for the whole. */
  excerpt: z.strictObject({ from: secondsSchema, to: secondsSchema }).nullable().default(null),
  /** Layers or groups alone, in their places; null for all of them. */
  layerIds: z.array(z.string().max(64)).min(1).max(200).nullable().default(null),
  settings: exportSettingsSchema.default(USUAL_SETTINGS),
});

export const exportPayload = z.object({
  ...whatSchema.shape,
  pieceId: z.string(),
  formatId: z.string(),
  document: z.unknown(),
  // Jobs of earlier versions made videos.
  kind: z.enum(EXPORT_KIND_IDS).default('mp4'),
  /** Rendered without looking at the room on the disk. */
  isAnyway: z.boolean().default(false),
});
export type ExportPayload = z.infer<typeof exportPayload>;

/** What an export is made from. */
export type ExportInput = StoredInput & Pick<ExportPayload, 'at' | 'excerpt' | 'settings'>;

/** What an export renders, from what its job holds. @throws AppError STORED_UNREADABLE, MEDIA_MISSING. */
export async function exportInput(
  context: Pick<ServerContext, 'media' | 'store'>,
  { document, formatId, at, excerpt, layerIds, settings }: ExportPayload,
): Promise<ExportInput> {
  const parsed = parsePiece(document);
  if (!parsed.ok) throw new AppError('STORED_UNREADABLE', parsed.problem.detail);
  const shown = layerIds ? onlyLayers(parsed.piece, layerIds) : parsed.piece;
  const piece = settings.captions === 'shown' ? shown : withoutCaptions(shown);
  return { ...(await renderInputFor(context, piece, formatId)), at, excerpt, settings };
}
