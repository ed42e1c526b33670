import { DESTINATIONS } from '@core/piece';
import { FRAME_RATES } from '@core/time';
import { makePiece } from '../home/make-piece';
import { startGuide } from './guide-store';
import { WORDS } from './words';

/** Makes the piece of the guide. @returns Its id, to go to. */
export async function startFirstPiece(): Promise<string> {
  const { width, height } = DESTINATIONS.wide;
  const id = await makePiece(WORDS.pieceName, [{ id: 'wide', name: WORDS.wide, width, height }], FRAME_RATES['30']);
  startGuide(id);
  return id;
}
