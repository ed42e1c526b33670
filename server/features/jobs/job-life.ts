import type { JobKind, JobState } from '../../db/entities';

/** The life of a job: which state may follow which. A running job goes back to queued when its worker is lost. */
export const TRANSITIONS = {
  queued: ['running', 'canceled', 'failed', 'paused'],
  running: ['succeeded', 'failed', 'canceled', 'queued', 'paused'],
  paused: ['queued', 'canceled'],
  succeeded: [],
  failed: [],
  canceled: [],
} as const satisfies Record<JobState, readonly JobState[]>;

export const canBecome = (from: JobState, to: JobState): boolean =>
  (TRANSITIONS[from] as readonly JobState[]).includes(to);

/** States from which `to` can be reached, for guarded updates. */
export const statesBefore = (to: JobState): JobState[] =>
  (Object.keys(TRANSITIONS) as JobState[]).filter((from) => canBecome(from, to));

export const isOver = (state: JobState): boolean => TRANSITIONS[state].length === 0;

/** Losses after which a job whose workers keep dying is given up. One that got further than ever before does not count. */
export const MAX_LOSSES = 5;
/** Of the whole: what a job must have got further by, so that the loss of its worker does not count. */
export const FURTHER = 0.005;
/**
 * A running job whose sign of life has not changed for this long, on the watcher's own clock, has lost its worker.
 * Workers report twice a second, from a thread of their own; on a machine with far too much to do that can take some
 * seconds.
 */
export const DEAD_AFTER_MS = 15_000;
/** A job without any progress for this long is stopped: it hangs, or will never end. */
export const STALL_MS: Readonly<Record<JobKind, number>> = {
  prepare: 180_000,
  export: 120_000,
  row: 120_000,
  part: 120_000,
  send: 120_000,
};

/** A watcher that hasn't looked for so long was asleep itself, or stopped. */
const SLEPT_MS = 5000;

/** A sign of life as it was last seen, and when, on the clock of whoever watches. */
interface Seen {
  readonly heartbeat: string;
  readonly since: number;
}

export interface RunningJob {
  readonly id: string;
  readonly attempt: number;
  /** Time of the last sign of life as the database writes it; only compared, never reckoned with. */
  readonly heartbeat: string;
}

/**
 * Tells which running jobs have lost their worker: those whose sign of life stays the same while the watcher itself is
 * awake. No wall clock is asked: a machine that sleeps, or a clock that jumps, makes everybody's signs of life look old
 * at once.
 */
export function createWatch(
  deadAfterMs = DEAD_AFTER_MS,
): (running: readonly RunningJob[], now: number) => RunningJob[] {
  const seen = new Map<string, Seen>();
  let lastLook: number | null = null;
  return (running, now) => {
    // The watcher slept itself: everybody gets the full time again.
    if (lastLook !== null && now - lastLook > SLEPT_MS) seen.clear();
    lastLook = now;
    const keys = new Set(running.map((job) => `${job.id}.${job.attempt}`));
    for (const key of seen.keys()) if (!keys.has(key)) seen.delete(key);
    return running.filter((job) => {
      const key = `${job.id}.${job.attempt}`;
      const known = seen.get(key);
      if (known?.heartbeat === job.heartbeat) return now - known.since >= deadAfterMs;
      seen.set(key, { heartbeat: job.heartbeat, since: now });
      return false;
    });
  };
}
