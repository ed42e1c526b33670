import { frameAddress } from '@core/formats';
import { LOOKED_AT, followSubject, shotsIn } from '@core/framing';
import type { SmallFrame } from '@core/framing';
import type { FromFootage, ToFootage } from './footage-protocol';
import { servedFile } from './served-files';

/** Frames that are fetched side by side. */
const AT_ONCE = 6;

const post = (message: FromFootage): void => self.postMessage(message);

async function smallFrame(hash: string, frame: number): Promise<SmallFrame> {
  const response = await servedFile(frameAddress(hash, 'small', frame));
  if (!response.ok) throw new Error(`the server answered ${response.status}`);
  const whole = await createImageBitmap(await response.blob());
  const scale = Math.min(1, LOOKED_AT / Math.max(whole.width, whole.height));
  const [width, height] = [whole.width, whole.height].map((side) => Math.max(1, Math.round(side * scale))) as [
    number,
    number,
  ];
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('no canvas');
  context.imageSmoothingQuality = 'high';
  context.drawImage(whole, 0, 0, width, height);
  whole.close();
  return { width, height, rgba: context.getImageData(0, 0, width, height).data };
}

/** Frames in their order; a frame that is asked for again is fetched once. */
async function framesOf(
  hash: string,
  frames: readonly number[],
  onDone: (share: number) => void,
): Promise<SmallFrame[]> {
  const own = [...new Set(frames)];
  const found = new Map<number, SmallFrame>();
  for (let i = 0; i < own.length; i += AT_ONCE) {
    const some = own.slice(i, i + AT_ONCE);
    const read = await Promise.all(some.map((frame) => smallFrame(hash, frame)));
    for (const [k, frame] of some.entries()) found.set(frame, read[k]!); // as many
    onDone(Math.min(1, (i + AT_ONCE) / own.length));
  }
  return frames.map((frame) => found.get(frame)!); // all were read
}

/** The very frame with which the shot begins that two looks lie on either side of. */
async function beginsWith(hash: string, before: number, after: number): Promise<number> {
  const step = after > before ? 1 : -1;
  const between = Array.from({ length: Math.abs(after - before) + 1 }, (_, i) => before + i * step);
  if (between.length < 3) return after;
  const cut = shotsIn(await framesOf(hash, between, () => {})).at(-1);
  return cut === undefined ? after : between[cut]!; // an index among them
}

/** The share of the work that fetching frames is. */
const FETCHING = 0.7;

async function look({ hash, frames, crop }: ToFootage): Promise<void> {
  const seen = await framesOf(hash, frames, (share) => post({ type: 'progress', share: share * FETCHING }));
  const { focus, cuts } = followSubject(seen, crop);
  const shots = [{ look: 0, frame: frames[0] ?? 0 }];
  for (const at of cuts) shots.push({ look: at, frame: await beginsWith(hash, frames[at - 1]!, frames[at]!) }); // a cut has a look before it
  post({ type: 'done', shots, focus });
}

export function receive(message: ToFootage): void {
  look(message).catch((error: unknown) =>
    post({ type: 'failed', message: error instanceof Error ? error.message : String(error) }),
  );
}
