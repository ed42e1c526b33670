import { createHash, randomUUID } from 'node:crypto';
import { Readable } from 'node:stream';
import { readPieceFile, writePieceFile } from '@core/formats';
import type { Piece } from '@core/piece';
import type { SongAnalysis } from '@core/audio';
import type { ServerContext } from '../../jobs/context';
import { AppError } from '../../platform/errors';
import { importMedia } from '../media/import-media';
import type { PieceRecord } from './repository';

/** @throws AppError MEDIA_MISSING. */
export async function exportPieceFile(context: ServerContext, piece: Piece): Promise<Uint8Array> {
  const media = new Map<string, Uint8Array>();
  const analyses = new Map<string, SongAnalysis>();
  for (const ref of piece.media) {
    media.set(ref.hash, await context.store.read(ref.hash, 'original').catch((cause: unknown) => {
      throw new AppError('MEDIA_MISSING', ref.name, { cause });
    }));
    if (ref.kind === 'audio') {
      const analysis = await context.media.analysis(ref.hash);
      if (analysis) analyses.set(ref.hash, analysis);
    }
  }
  return writePieceFile({ piece, media, analyses });
}

/** Opens a piece file as a new piece; its media is taken in first, so that a failure leaves no half piece. */
export async function importPieceFile(context: ServerContext, bytes: Uint8Array): Promise<PieceRecord> {
  const read = readPieceFile(bytes);
  if (!read.ok) throw new AppError(read.problem.code, 'detail' in read.problem ? read.problem.detail : '');
  const { piece, media } = read.file;
  for (const ref of piece.media) {
    const content = media.get(ref.hash);
    if (!content) throw new AppError('PIECE_MEDIA_MISSING', ref.name);
    if (createHash('sha256').update(content).digest('hex') !== ref.hash) throw new AppError('PIECE_INVALID', `${ref.name} does not match its checksum`);
    await importMedia(context, Readable.from([Buffer.from(content)]), ref.name);
  }
  return context.pieces.create({ ...piece, id: randomUUID() }, 'Opened from a file');
}
