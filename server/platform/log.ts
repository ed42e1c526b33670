import { pino } from 'pino';
import type { Logger } from 'pino';

/** Longest text of an error in the log. */
const LONGEST = 1000;

/**
 * What of an error is worth a line. A failed query carries its parameters, whole documents among them: these stay out.
 */
export function shortError(error: unknown): Record<string, unknown> {
  if (!(error instanceof Error)) return { message: String(error).slice(0, LONGEST) };
  const code = 'code' in error ? error.code : undefined;
  const cause = error.cause instanceof Error ? shortError(error.cause) : undefined;
  return {
    type: error.name,
    message: error.message.slice(0, LONGEST),
    code,
    stack: error.stack
      ?.split('\n')
      .slice(0, 12)
      .join('\n')
      .slice(0, 3 * LONGEST),
    cause,
  };
}

/** Log lines that cannot be written for so long are dropped, characters. */
const MOST_WAITING = 1_000_000;

/**
 * A log that never holds up work: lines wait in memory, and when nobody takes them (a full disk, a pipe that nobody
 * reads) they are dropped.
 */
export function createLog(level: string, part: string): Logger {
  const out = pino.destination({ fd: 1, sync: false, minLength: 0, maxLength: MOST_WAITING });
  out.on('error', () => {});
  return pino({ level, base: { part }, serializers: { err: shortError } }, out);
}
