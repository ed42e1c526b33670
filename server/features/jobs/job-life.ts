import type { JobState } from '../../db/entities';

/** The life of a job: which state may follow which. A running job goes back to queued when its worker died. */
export const TRANSITIONS = {
  queued: ['running', 'canceled', 'failed'],
  running: ['succeeded', 'failed', 'canceled', 'queued'],
  succeeded: [],
  failed: [],
  canceled: [],
} as const satisfies Record<JobState, readonly JobState[]>;

export const canBecome = (from: JobState, to: JobState): boolean => (TRANSITIONS[from] as readonly JobState[]).includes(to);

/** States from which `to` can be reached, for guarded updates. */
export const statesBefore = (to: JobState): JobState[] => (Object.keys(TRANSITIONS) as JobState[]).filter((from) => canBecome(from, to));

export const isOver = (state: JobState): boolean => TRANSITIONS[state].length === 0;

/** Attempts after which a job whose workers keep dying is given up. */
export const MAX_ATTEMPTS = 4;
/** A running job without a sign of life for this long has lost its worker. Workers report every second. */
export const DEAD_AFTER_MS = 6000;
