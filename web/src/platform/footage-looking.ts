import { frameAddress } from '@core/formats';
import { followSubject, shotsIn } from '@core/framing';
import type { SmallFrame } from '@core/framing';
import type { FromFootage, ToFootage } from './footage-protocol';
import { smallFrameOf } from './small-frame';

/** Frames that are fetched side by side. */
const AT_ONCE = 6;

const post = (message: FromFootage): void => self.postMessage(message);

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
    const read = await Promise.all(some.map((frame) => smallFrameOf(frameAddress(hash, 'small', frame))));
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
