import { open } from 'node:fs/promises';
import type { FileHandle } from 'node:fs/promises';
import { FRAMES_TAIL_BYTES, frameBytes, indexLength, readFramesIndex } from '@core/formats';
import type { FrameSize, FramesIndex } from '@core/formats';

/** Indices of files of frames, which never change once they are there, in the order of their last use. */
const indices = new Map<string, FramesIndex>();
const MOST_INDICES = 40;

async function readBytes(handle: FileHandle, from: number, to: number): Promise<Buffer> {
  const bytes = Buffer.alloc(to - from);
  const { bytesRead } = await handle.read(bytes, 0, bytes.length, from);
  if (bytesRead < bytes.length) throw new Error('a file of frames is cut off');
  return bytes;
}

async function indexOf(handle: FileHandle, file: string): Promise<FramesIndex> {
  const known = indices.get(file);
  if (known) {
    indices.delete(file);
    indices.set(file, known);
    return known;
  }
  const { size } = await handle.stat();
  const end = size - FRAMES_TAIL_BYTES;
  const length = end < 0 ? null : indexLength(await readBytes(handle, end, size));
  const index =
    length === null || length > end ? null : readFramesIndex((await readBytes(handle, end - length, end)).toString());
  if (!index) throw new Error(`${file} is no file of frames`);
  indices.set(file, index);
  for (const oldest of indices.keys()) {
    if (indices.size <= MOST_INDICES) break;
    indices.delete(oldest);
  }
  return index;
}

/**
 * A frame of footage as it lies in its file.
 * @returns null if the file has no such frame. Rejects if it is no file of frames.
 */
export async function readFrame(
  file: string,
  size: FrameSize,
  frame: number,
): Promise<{ bytes: Buffer; type: string } | null> {
  const handle = await open(file);
  try {
    const index = await indexOf(handle, file);
    const at = frameBytes(index, size, frame);
    return at && { bytes: await readBytes(handle, ...at), type: index.type };
  } finally {
    await handle.close();
  }
}
