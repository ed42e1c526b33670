import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdir, rm } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import type { SongAnalysis } from '@core/audio';
import { songOf, timedBy } from '@core/piece';
import type { MediaRef, Piece } from '@core/piece';
import type { ServerContext } from '../../jobs/context';
import { AppError } from '../../platform/errors';
import { importMedia } from '../media/import-media';
import { packPiece, receivePieceFile, unpackPiece } from './piece-archive';
import type { UnpackedPiece } from './piece-archive';
import type { PieceRecord, Principal } from './repository';

/** A piece with its media as a stream. @throws AppError MEDIA_MISSING. */
export async function exportPieceFile(context: ServerContext, piece: Piece): Promise<Readable> {
  const media = new Map(piece.media.map((ref) => [ref.hash, context.store.path(ref.hash, 'original')] as const));
  const analyses = new Map<string, SongAnalysis>();
  const timed = timedBy(piece);
  for (const { kind, hash } of piece.media) {
    const version = hash === timed?.hash ? timed.version : null;
    const analysis = kind === 'audio' ? await context.media.analysis(hash, version).catch(() => null) : null;
    if (analysis) analyses.set(hash, analysis);
  }
  return packPiece({ piece, media, analyses, rosters: await context.rosters.ofPiece(piece.id) });
}

/** The piece keeps to the beats that came with it, whatever method its song is heard by here. */
function timedAsPacked(piece: Piece, analyses: ReadonlyMap<string, SongAnalysis>): Piece {
  const packed = analyses.get(songOf(piece)?.hash ?? '');
  return packed && piece.music ? { ...piece, music: { ...piece.music, analysisVersion: packed.version } } : piece;
}

/** Reads a piece file and takes its media in. @throws AppError. */
export async function takePieceFile(
  context: ServerContext,
  who: Principal,
  body: ReadableStream<Uint8Array>,
  signal?: AbortSignal,
): Promise<Pick<UnpackedPiece, 'piece' | 'rosters'>> {
  const archive = context.store.temporary('estrella');
  const folder = `${archive}.d`;
  try {
    await receivePieceFile(body, archive);
    await mkdir(folder);
    const { piece, media, rosters, analyses } = await unpackPiece(archive, folder);
    const taken: MediaRef[] = [];
    for (const ref of piece.media) {
      const record = await importMedia(
        context,
        who.owner,
        createReadStream(media.get(ref.hash) ?? ''),
        ref.name,
        signal,
        ref.kind,
      );
      // A document that calls a picture a song would be painted with what is not there.
      if (record.kind !== ref.kind) throw new AppError('PIECE_INVALID', `${ref.name} is no ${ref.kind}`);
      const analysis = analyses.get(ref.hash);
      if (analysis) await context.media.addAnalysis(record.hash, analysis);
      taken.push({ ...ref, hash: record.hash });
    }
    return { piece: { ...timedAsPacked(piece, analyses), media: taken }, rosters };
  } finally {
    await rm(archive, { force: true });
    await rm(folder, { recursive: true, force: true });
  }
}

/** Opens a piece file as a new piece; its media is taken in first, so that a failure leaves no half piece. */
export async function importPieceFile(
  context: ServerContext,
  who: Principal,
  body: ReadableStream<Uint8Array>,
  signal?: AbortSignal,
): Promise<PieceRecord> {
  const { piece, rosters } = await takePieceFile(context, who, body, signal);
  const made = await context.pieces.create(who, { ...piece, id: randomUUID() }, 'Opened from a file');
  for (const [groupId, { rows, ...roster }] of rosters) {
    // Pieces that rows were changed by hand in do not come along.
    const own = rows.map((row) => ({ ...row, ownPieceId: null }));
    await context.rosters.keep(who, made.piece.id, groupId, { ...roster, rows: own }, 0);
  }
  return made;
}
