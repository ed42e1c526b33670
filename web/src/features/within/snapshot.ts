import { fetchAnalysis } from '../../platform/fetch-analysis';
import {
  MAX_WITHIN,
  depthWithin,
  loadWithin,
  parsePiece,
  piecesWithin,
  resolveTimes,
  timedBy,
  writeWithin,
} from '@core/piece';
import type { MediaRef, Piece } from '@core/piece';
import { ApiError, api, call } from '../../platform/api';
import { fetchWithin } from '../../platform/browser-host';
import { uploadMedia } from '../../platform/upload-media';
import { WORDS } from './words';

/** A piece as it is now, in the form in which it stands within another. */
export interface Snapshot {
  readonly piece: Piece;
  readonly file: File;
  /** Seconds. */
  readonly lasts: number;
  /** Its files that a frame may need. */
  readonly needs: readonly MediaRef[];
}

/**
 * @param around - the piece it shall stand in.
 * @throws ApiError if it would come to stand within itself, or is gone.
 */
export async function snapshotOf(pieceId: string, around: Piece): Promise<Snapshot> {
  const stored = await call(api.pieces[':id'].$get({ param: { id: pieceId } }));
  const parsed = parsePiece(stored.piece);
  if (!parsed.ok) throw new ApiError('PIECE_INVALID', parsed.problem.detail);
  return snapshot(parsed.piece, around);
}

export async function snapshot(piece: Piece, around: Piece): Promise<Snapshot> {
  await loadWithin(piece, fetchWithin);
  if (piece.id === around.id || piecesWithin(piece).has(around.id))
    throw new ApiError('BAD_REQUEST', WORDS.wouldStandInItself(piece.name));
  if (depthWithin(piece) >= MAX_WITHIN) throw new ApiError('BAD_REQUEST', WORDS.isTooDeep);
  const timed = timedBy(piece);
  const analysis = timed ? await fetchAnalysis(timed) : null;
  const text = writeWithin({ piece, analysis });
  return {
    piece,
    file: new File([text], `${piece.name.slice(0, 80)}.json`, { type: 'application/json' }),
    lasts: resolveTimes(piece, analysis).end,
    needs: piece.media.filter(({ kind }) => kind !== 'audio'),
  };
}

/** SHA-256 of a file, as the server names it. */
export async function hashOf(file: File): Promise<string> {
  const bytes = new Uint8Array(await crypto.subtle.digest('SHA-256', await file.arrayBuffer()));
  return Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join('');
}

/** Sends it to the server. @returns What a document says of the file. */
export async function sendSnapshot({ file, piece }: Snapshot): Promise<MediaRef> {
  const { media } = await uploadMedia(file, 'piece', () => {}, new AbortController().signal);
  return { ...media, name: piece.name.slice(0, 255) };
}
