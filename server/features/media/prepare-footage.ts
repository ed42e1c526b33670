import { AppError, Cancelled, TookTooLong } from '../../platform/errors';
import type { MediaStore } from '../../platform/media-store';
import { readHead } from '../../platform/read-head';
import { makeFrames } from './make-frames';
import type { MadeFrames } from './make-frames';
import { sniff } from './sniff';

/** Frames are made several times as fast as they play, unless they are large; what takes longer is stuck. */
const limitFor = (seconds: number): number => 120_000 + 8000 * seconds;

/** Makes footage ready. @param declared - the length the file claims, seconds. */
export async function prepareFootage(
  store: MediaStore,
  hash: string,
  name: string,
  declared: number,
  options: { signal: AbortSignal; onProgress: (share: number) => void },
): Promise<MadeFrames> {
  const original = store.path(hash, 'original');
  const sniffed = await sniff(await readHead(original), 'footage');
  if (sniffed?.kind !== 'footage') throw new AppError('FOOTAGE_UNREADABLE', name);
  const target = await store.prepare(hash, 'frames');
  try {
    const limits = { limitMs: limitFor(declared), isPatient: true };
    const made = await makeFrames(original, sniffed.format, name, target.temporary, { ...options, ...limits });
    await target.commit();
    return made;
  } catch (cause) {
    await target.discard();
    if (cause instanceof Cancelled || cause instanceof TookTooLong || cause instanceof AppError) throw cause;
    throw new AppError('FOOTAGE_UNREADABLE', name, { cause });
  }
}
