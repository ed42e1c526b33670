import { isOnBeat, landingEdits, visibleHits } from '@core/checks';
import { applyEdits, resolveTimes } from '@core/piece';
import type { Piece } from '@core/piece';
import type { Seconds } from '@core/time';

/** Landing one movement can move a keyframe that it shares with the next, which is landed in the next round. */
const ROUNDS = 6;

/** The piece with every movement on its beat, as the run-through's "Land all" leaves it. @param bpm - of its song. */
export function landed(piece: Piece, bpm: number, firstDownbeat: Seconds): Piece {
  const tempo = { ...piece.tempo, bpm, firstDownbeat };
  let now: Piece = { ...piece, tempo };
  for (let round = 0; round < ROUNDS; round++) {
    const times = resolveTimes(now, null);
    const off = visibleHits(now, times).filter((hit) => !isOnBeat(hit));
    if (off.length === 0) break;
    now = applyEdits(now, landingEdits(off), times).piece;
  }
  return now;
}
