import { strToU8, zipSync } from 'fflate';
import type { Piece } from '@core/piece';

/** A piece file in memory, for tests: small ones, and ones that a careful writer would not make. */
export function zipPiece(
  piece: Piece,
  media: ReadonlyMap<string, Uint8Array>,
  more: Readonly<Record<string, Uint8Array>> = {},
): Uint8Array {
  return zipSync({
    'piece.json': strToU8(JSON.stringify(piece)),
    ...Object.fromEntries([...media].map(([hash, bytes]) => [`media/${hash}`, bytes])),
    ...more,
  });
}
