import { LOOKED_AT, focusOfPicture } from '@core/framing';
import type { Crop, Focus, SmallFrame } from '@core/framing';
import type { MediaRef } from '@core/piece';
import { stillAddress } from '../../platform/still-address';

/** A picture, or the first frame of footage, small enough to be looked at. Rejects if it cannot be read. */
async function smallFrame(ref: MediaRef): Promise<SmallFrame> {
  const response = await fetch(stillAddress(ref));
  if (!response.ok) throw new Error(`the server answered ${response.status}`);
  const whole = await createImageBitmap(await response.blob());
  const scale = Math.min(1, LOOKED_AT / Math.max(whole.width, whole.height));
  const width = Math.max(1, Math.round(whole.width * scale));
  const height = Math.max(1, Math.round(whole.height * scale));
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('no canvas');
  context.imageSmoothingQuality = 'high';
  context.drawImage(whole, 0, 0, width, height);
  whole.close();
  return { width, height, rgba: context.getImageData(0, 0, width, height).data };
}

export interface Looked {
  /** Width over height. */
  readonly shape: number;
  readonly find: (crop: Crop) => Focus;
}

/** Looks at a picture of the piece. Rejects if it cannot be read. */
export async function lookAtPicture(ref: MediaRef): Promise<Looked> {
  const frame = await smallFrame(ref);
  const shape = ref.width && ref.height ? ref.width / ref.height : frame.width / frame.height;
  return { shape, find: (crop) => focusOfPicture(frame, crop) };
}
