import { frameAddress } from '@core/formats';
import { MEDIA_KINDS } from '@core/piece';
import type { MediaRef } from '@core/piece';

/** Where a picture is, or a frame of footage. @param frame - its index. */
export const stillAddress = ({ hash, footage }: MediaRef, frame = 0): string =>
  footage ? frameAddress(hash, 'small', frame) : `/api/media/${hash}/${MEDIA_KINDS.picture.variant}`;
