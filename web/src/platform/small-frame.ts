import { LOOKED_AT } from '@core/framing';
import type { SmallFrame } from '@core/framing';
import { servedFile } from './served-files';

/**
 * A picture, small enough to be looked at for what matters in it. Rejects if it cannot be read.
 * @param address - on the server.
 * @param longest - side, pixels.
 */
export async function smallFrameOf(address: string, longest = LOOKED_AT): Promise<SmallFrame> {
  const response = await servedFile(address);
  if (!response.ok) throw new Error(`the server answered ${response.status}`);
  const whole = await createImageBitmap(await response.blob());
  const scale = Math.min(1, longest / Math.max(whole.width, whole.height));
  const width = Math.max(1, Math.round(whole.width * scale));
  const height = Math.max(1, Math.round(whole.height * scale));
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('no canvas');
  context.imageSmoothingQuality = 'high';
  context.drawImage(whole, 0, 0, width, height);
  whole.close();
  return { width, height, rgba: context.getImageData(0, 0, width, height).data };
}
