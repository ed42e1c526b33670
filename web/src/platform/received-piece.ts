import { parsePiece } from '@core/piece';
import type { Piece } from '@core/piece';
import { ApiError } from './api';
import { WORDS } from './words';

/** A document as the server sent it, read again: a newer server's is refused, not half understood. @throws ApiError. */
export function receivedPiece(json: unknown): Piece {
  const parsed = parsePiece(json);
  if (!parsed.ok)
    throw new ApiError(
      parsed.problem.code,
      parsed.problem.code === 'UNKNOWN_VERSION'
        ? WORDS.thisPieceWasWritten(parsed.problem.detail)
        : WORDS.thisPieceCannotBe(parsed.problem.detail),
    );
  return parsed.piece;
}
