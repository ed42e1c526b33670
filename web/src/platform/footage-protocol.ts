import type { FollowedShot } from '@core/adapt';
import type { Crop, Focus } from '@core/framing';

/** Messages between the page and the worker that looks at footage. A worker does one piece of work. */
export interface ToFootage {
  readonly hash: string;
  /** Evenly spaced in time, in the order in which they are seen. */
  readonly frames: readonly number[];
  /** The window that is to follow what matters. */
  readonly crop: Crop;
}

export interface LookedAtFootage {
  readonly shots: readonly FollowedShot[];
  /** The middle of the window in each frame. */
  readonly focus: readonly Focus[];
}

export type FromFootage =
  | { readonly type: 'progress'; readonly share: number }
  | ({ readonly type: 'done' } & LookedAtFootage)
  | { readonly type: 'failed'; readonly message: string };
