import { gatherErrors, startChild } from '../platform/child';
import { AppError, Cancelled } from '../platform/errors';

/** Longest time that one file takes. */
const LIMIT_MS = 2 * 3600_000;

/** Why ffmpeg ended badly, by what it complained about. */
export const encoderFailure = (complaint: string): AppError =>
  /No space left/.test(complaint) ? new AppError('DISK_FULL') : new AppError('ENCODER_FAILED', complaint);

/**
 * Makes one file of others by ffmpeg, which may open files and nothing else.
 * @throws AppError ENCODER_FAILED, DISK_FULL; Cancelled if the signal fires.
 */
export async function encodeFile(args: readonly string[], out: string, signal?: AbortSignal): Promise<void> {
  const child = startChild(
    'ffmpeg',
    ['-v', 'error', '-nostdin', '-y', '-protocol_whitelist', 'file,pipe', ...args, `file:${out}`],
    { stdio: ['ignore', 'ignore', 'pipe'], limitMs: LIMIT_MS },
  );
  const errors = gatherErrors(child.process);
  const abort = (): void => child.kill();
  if (signal?.aborted) abort();
  signal?.addEventListener('abort', abort, { once: true });
  try {
    const code = await new Promise<number | null>((resolve, reject) => {
      child.process.on('error', reject);
      child.process.on('close', resolve);
    });
    if (signal?.aborted) throw new Cancelled();
    if (code !== 0) throw encoderFailure(errors());
  } finally {
    signal?.removeEventListener('abort', abort);
  }
}
