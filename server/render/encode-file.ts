import { gatherErrors, startChild } from '../platform/child';
import { AppError, Cancelled } from '../platform/errors';

/** Longest time that one file takes. */
const LIMIT_MS = 2 * 3600_000;

/** Why ffmpeg ended badly, by what it complained about. */
export const encoderFailure = (complaint: string): AppError =>
  /No space left/.test(complaint) ? new AppError('DISK_FULL') : new AppError('ENCODER_FAILED', complaint);

/**
 * Makes one file of others by ffmpeg, which may open files and nothing else.
 * @param onSeconds - called with the seconds of the file that are done.
 * @throws AppError ENCODER_FAILED, DISK_FULL; Cancelled if the signal fires.
 */
export async function encodeFile(
  args: readonly string[],
  out: string,
  signal?: AbortSignal,
  onSeconds?: (seconds: number) => void,
): Promise<void> {
  const child = startChild(
    'ffmpeg',
    [
      ...['-v', 'error', '-nostdin', '-y', '-progress', 'pipe:1', '-protocol_whitelist', 'file,pipe'],
      ...[...args, out === '-' ? out : `file:${out}`],
    ],
    { stdio: ['ignore', 'pipe', 'pipe'], limitMs: LIMIT_MS },
  );
  const errors = gatherErrors(child.process);
  child.process.stdout?.on('data', (data: Buffer) => {
    const microseconds = Number(/out_time_us=(\d+)/.exec(data.toString())?.[1]);
    if (Number.isFinite(microseconds)) onSeconds?.(microseconds / 1e6);
  });
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
