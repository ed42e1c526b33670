import { frameAddress } from '@core/formats';
import { followSubject, framesForFaces, shotsIn } from '@core/framing';
import type { Face, SeenFaces, SmallFrame } from '@core/framing';
import type { FootageWork, FromFootage, ToFootage } from './footage-protocol';
import { smallFrameOf } from './small-frame';

/** Frames that are fetched side by side. */
const AT_ONCE = 6;
/** Looks from one at which faces are looked for to the next at most: a second's, as the desk looks. */
const FACES_EVERY = 8;
/** Milliseconds that are spent on faces: a few looks where there is no graphics card. */
const FACES_TIME = 8000;
/** Looks for which there is always time, however slow: the ends of the first shots. */
const FEWEST_LOOKS = 4;
/** The share of the work that fetching frames is; looking for faces is the rest. */
const FETCHING = 0.3;

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

/**
 * Faces at addresses, in their order, as far as there is time for them. The network is large, and asked for only here.
 */
async function facesAt(addresses: readonly string[], onDone: (share: number) => void): Promise<Face[][]> {
  const { FACE_LOOK, openFaceFinder } = await import('./face-finder');
  const find = await openFaceFinder();
  const began = performance.now();
  const out: Face[][] = [];
  for (const address of addresses) {
    const spent = (performance.now() - began) / FACES_TIME;
    if (spent >= 1 && out.length >= FEWEST_LOOKS) break;
    onDone(Math.max(Math.min(1, spent), out.length / addresses.length));
    out.push(await find(await smallFrameOf(address, FACE_LOOK)));
  }
  return out;
}

/** The faces in some of the looks. What keeps them from being found leaves the rest to go by. */
async function facesIn(
  { hash, frames }: FootageWork,
  seen: readonly SmallFrame[],
  onDone: (share: number) => void,
): Promise<SeenFaces[]> {
  const looks = framesForFaces(seen.length, shotsIn(seen), FACES_EVERY);
  const addresses = looks.map((look) => frameAddress(hash, 'small', frames[look]!)); // looks are indices among them
  const faces = await facesAt(addresses, onDone).catch(() => []);
  const found = faces.map((own, i) => ({ frame: looks[i]!, faces: own })); // no more than looks
  return found.sort((a, b) => a.frame - b.frame);
}

async function follow(work: FootageWork): Promise<void> {
  const { hash, frames, crop } = work;
  const tell = (share: number): void => post({ type: 'progress', share });
  const seen = await framesOf(hash, frames, (share) => tell(share * FETCHING));
  const faces = await facesIn(work, seen, (share) => tell(FETCHING + share * (1 - FETCHING)));
  const { focus, cuts } = followSubject(seen, crop, faces);
  const shots = [{ look: 0, frame: frames[0] ?? 0 }];
  for (const at of cuts) shots.push({ look: at, frame: await beginsWith(hash, frames[at - 1]!, frames[at]!) }); // a cut has a look before it
  post({ type: 'followed', shots, focus });
}

async function findFaces(address: string): Promise<void> {
  const [faces] = await facesAt([address], () => {});
  post({ type: 'faces', faces: faces ?? [] });
}

export function receive(message: ToFootage): void {
  const work = message.type === 'follow' ? follow(message) : findFaces(message.address);
  work.catch((error: unknown) =>
    post({ type: 'failed', message: error instanceof Error ? error.message : String(error) }),
  );
}
