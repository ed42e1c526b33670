import { focusOfPicture } from '@core/framing';
import type { Crop, Focus } from '@core/framing';
import type { MediaRef } from '@core/piece';
import { facesInPicture } from '../../platform/footage-client';
import { smallFrameOf } from '../../platform/small-frame';
import { stillAddress } from '../../platform/still-address';

export interface Looked {
  /** Width over height. */
  readonly shape: number;
  readonly find: (crop: Crop) => Focus;
}

/**
 * Looks at a picture of the piece, or at the first frame of footage. Rejects if it cannot be read. Without the means to
 * look for faces, what stands out has to do.
 */
export async function lookAtPicture(ref: MediaRef): Promise<Looked> {
  const address = stillAddress(ref);
  const [frame, faces] = await Promise.all([smallFrameOf(address), facesInPicture(address).catch(() => [])]);
  const shape = ref.width && ref.height ? ref.width / ref.height : frame.width / frame.height;
  return { shape, find: (crop) => focusOfPicture(frame, crop, faces) };
}
