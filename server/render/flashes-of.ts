import { FlashMeter, flashSize } from '@core/checks';
import type { Flashing } from '@core/checks';
import type { FrameRate } from '@core/time';
import { frameCount, frameMiddle } from '@core/time';
import { turnUnless } from '../platform/turns';
import type { FrameSource } from './frame-source';

/** Frames between two looks at whether to go on. */
const AT_ONCE = 8;

/** Paints every frame small and measures how they flash. @throws Cancelled. */
export async function flashesOf(
  source: FrameSource,
  rate: FrameRate,
  signal?: AbortSignal,
): Promise<readonly Flashing[]> {
  const [width, height] = flashSize(source.width, source.height);
  const meter = new FlashMeter(width, height);
  const count = frameCount(source.duration, rate);
  for (let frame = 0; frame < count; frame++) {
    if (frame % AT_ONCE === 0) await turnUnless(signal);
    const at = frameMiddle(frame, rate);
    const surface = await source.paint(at, Math.max(width / source.width, height / source.height));
    const { data } = surface.canvas.getContext('2d').getImageData(0, 0, width, height);
    meter.add(data, at);
  }
  return meter.found();
}
