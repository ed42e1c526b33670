import * as z from 'zod';
import { MAX_FOOTAGE_FRAMES } from '../piece';

/**
 * The file that is made of a film: every frame as a picture of its own (JPEG; WebP where it can be seen through), in two
 * sizes, one behind the other; then their index as JSON, then the length of the index (unsigned, 32 bits, little endian)
 * and {@link FRAMES_MARK}. So any frame is read by itself, and the file is written in one go.
 */

/** The last bytes of such a file. */
export const FRAMES_MARK = 'ESTRELLA FRAMES1';
/** The bytes behind the index: its length and the mark. */
export const FRAMES_TAIL_BYTES = 4 + FRAMES_MARK.length;
/** An index of the most frames in two sizes. */
export const MAX_INDEX_BYTES = 2_000_000;

/** The sizes that frames are kept in: for the finished picture, and for what has to be there at once. */
export const FRAME_SIZES = ['full', 'small'] as const;
export type FrameSize = (typeof FRAME_SIZES)[number];

export const FRAME_TYPES = ['image/jpeg', 'image/webp'] as const;
export type FrameType = (typeof FRAME_TYPES)[number];

const side = z.number().int().min(1).max(10_000);
const sizeSchema = z.strictObject({
  width: side,
  height: side,
  /** Where each frame begins in the file, and where the last one ends: one more than there are frames. */
  offsets: z
    .array(z.number().int().min(0))
    .min(2)
    .max(MAX_FOOTAGE_FRAMES + 1),
});
const indexSchema = z
  .strictObject({ type: z.enum(FRAME_TYPES), full: sizeSchema, small: sizeSchema })
  .refine(
    (index) => index.full.offsets.length === index.small.offsets.length,
    'there are as many frames in every size',
  );
export type FramesIndex = z.infer<typeof indexSchema>;

/** Where a server has a frame. */
export const frameAddress = (hash: string, size: FrameSize, frame: number): string =>
  `/api/media/${hash}/frames/${size}/${frame}`;

/** What is written behind the last frame. */
export function framesTail(index: FramesIndex): Uint8Array {
  const json = new TextEncoder().encode(JSON.stringify(index));
  const tail = new Uint8Array(json.length + FRAMES_TAIL_BYTES);
  tail.set(json);
  new DataView(tail.buffer).setUint32(json.length, json.length, true);
  tail.set(new TextEncoder().encode(FRAMES_MARK), json.length + 4);
  return tail;
}

/** @param end - the last {@link FRAMES_TAIL_BYTES} of a file. @returns the length of its index; null if it is none. */
export function indexLength(end: Uint8Array): number | null {
  if (end.length !== FRAMES_TAIL_BYTES || new TextDecoder().decode(end.subarray(4)) !== FRAMES_MARK) return null;
  const length = new DataView(end.buffer, end.byteOffset).getUint32(0, true);
  return length <= MAX_INDEX_BYTES ? length : null;
}

/** @returns the index; null if it is none. */
export function readFramesIndex(json: string): FramesIndex | null {
  try {
    return indexSchema.parse(JSON.parse(json));
  } catch {
    return null;
  }
}

/** Where a frame lies: its first byte and the first one behind it. Null if there is no such frame. */
export function frameBytes(index: FramesIndex, size: FrameSize, frame: number): readonly [number, number] | null {
  const { offsets } = index[size];
  const [from, to] = [offsets[frame], offsets[frame + 1]];
  return from === undefined || to === undefined || to <= from ? null : [from, to];
}
