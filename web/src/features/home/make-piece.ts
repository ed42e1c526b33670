import { createPiece } from '@core/piece';
import type { Format } from '@core/piece';
import type { FrameRate } from '@core/time';
import { api, call } from '../../platform/api';
import { newId } from '../../platform/ids';

/** Makes an empty piece on the server. @returns Its id. */
export async function makePiece(name: string, formats: readonly Format[], frameRate: FrameRate): Promise<string> {
  const piece = createPiece({ name, formats: [...formats], frameRate }, newId);
  return (await call(api.pieces.$post({ json: { piece } }))).id;
}
