import { Readable } from 'node:stream';
import type { Context } from 'hono';
import * as z from 'zod';
import { parsePiece } from '@core/piece';
import type { Piece } from '@core/piece';
import { exportPieceFile } from '../features/pieces/piece-transfer';
import type { ServerContext } from '../jobs/context';

/** A document, through the one door that all documents come in by. */
export const documentSchema = z.unknown().transform((value, context): Piece => {
  const parsed = parsePiece(value);
  if (parsed.ok) return parsed.piece;
  context.addIssue({ code: 'custom', message: parsed.problem.detail });
  return z.NEVER;
});

/** A document with its media as a file to be kept. @throws AppError MEDIA_MISSING. */
export async function pieceFileResponse(c: Context, context: ServerContext, piece: Piece): Promise<Response> {
  const stream = await exportPieceFile(context, piece);
  const name = piece.name.replace(/[^\p{L}\p{N} _-]/gu, '').trim() || 'piece';
  return c.body(Readable.toWeb(stream) as ReadableStream, 200, {
    'content-type': 'application/zip',
    'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}.estrella`,
  }); // the two ReadableStream types differ in name only
}
