import { parsePiece } from '@core/piece';
import type { Piece } from '@core/piece';
import { ApiError } from './api';

/** A document as the server sent it, read again: a newer server's is refused, not half understood. @throws ApiError. */
export function receivedPiece(json: unknown): Piece {
  const parsed = parsePiece(json);
  if (!parsed.ok)
    throw new ApiError(
      parsed.problem.code,
      parsed.problem.code === 'UNKNOWN_VERSION'
        ? `This piece was written by a newer version of the program (${parsed.problem.detail}). Load the page again.`
        : `This piece cannot be shown as it is (${parsed.problem.detail}).`,
    );
  return parsed.piece;
}
