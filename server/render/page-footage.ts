import { frameAddress } from '@core/formats';
import type { FrameSize } from '@core/formats';
import { needsOf, sourceKey } from '@core/paint';
import type { Source } from '@core/paint';
import { frameMiddle } from '@core/time';
import type { FrameRate } from '@core/time';
import { AppError } from '../platform/errors';
import { turnUnless } from '../platform/turns';
import { readFrame } from '../platform/read-frame';
import type { FrameSource } from './frame-source';

/** A page with more footage than this in full has it small: a browser has to hold all of it. */
const MOST_FULL_BYTES = 60_000_000;
/** And more than this it cannot have at all. */
const MOST_BYTES = 250_000_000;
/** Frames between two looks at whether to go on. */
const AT_ONCE = 30;

/** The frames of footage that are seen in a span of the piece, each once. */
async function framesSeen(
  source: Pick<FrameSource, 'resolve'>,
  { first, count }: { readonly first: number; readonly count: number },
  rate: FrameRate,
  signal?: AbortSignal,
): Promise<Source[]> {
  const seen = new Map<string, Source>();
  for (let i = 0; i < count; i++) {
    for (const need of needsOf(source.resolve(frameMiddle(first + i, rate))))
      if (need.frame !== null) seen.set(sourceKey(need), need);
    if (i % AT_ONCE !== 0) continue;
    await turnUnless(signal);
  }
  return [...seen.values()];
}

/** The frames in one size by their address; null if they are more than a page can hold. */
async function readAll(
  frames: readonly Source[],
  size: FrameSize,
  files: Readonly<Record<string, string>>,
  most: number,
): Promise<Map<string, Buffer> | null> {
  const out = new Map<string, Buffer>();
  let bytes = 0;
  for (const { hash, frame } of frames) {
    const found = await readFrame(files[hash] ?? '', size, frame ?? 0);
    if (!found) throw new AppError('MEDIA_MISSING', hash);
    bytes += found.bytes.length;
    if (bytes > most) return null;
    // The player asks for full frames, whatever the page has.
    out.set(frameAddress(hash, 'full', frame ?? 0), found.bytes);
  }
  return out;
}

/**
 * Frames of footage that a page carries, by the address at which its painter looks for them: full ones, or small ones where
 * those would be too much. @throws AppError MEDIA_MISSING, FOOTAGE_TOO_MUCH; Cancelled.
 */
export async function footageOfPage(
  source: Pick<FrameSource, 'resolve'>,
  span: { readonly first: number; readonly count: number },
  rate: FrameRate,
  files: Readonly<Record<string, string>>,
  signal?: AbortSignal,
): Promise<ReadonlyMap<string, Buffer>> {
  const frames = await framesSeen(source, span, rate, signal);
  const found =
    (await readAll(frames, 'full', files, MOST_FULL_BYTES)) ?? (await readAll(frames, 'small', files, MOST_BYTES));
  if (!found) throw new AppError('FOOTAGE_TOO_MUCH');
  return found;
}
