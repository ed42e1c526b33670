import type { FollowedShot } from '@core/adapt';
import type { Crop, Face, Focus } from '@core/framing';

/** Messages between the page and the worker that looks at footage and pictures. A worker does one piece of work. */
export interface FootageWork {
  readonly hash: string;
  /** Evenly spaced in time, in the order in which they are seen. */
  readonly frames: readonly number[];
  /** The window that is to follow what matters. */
  readonly crop: Crop;
}

export type ToFootage =
  | ({ readonly type: 'follow' } & FootageWork)
  /** Finds the faces in one picture. @property address - on the server. */
  | { readonly type: 'faces'; readonly address: string };

export interface LookedAtFootage {
  readonly shots: readonly FollowedShot[];
  /** The middle of the window in each frame. */
  readonly focus: readonly Focus[];
}

export type FromFootage =
  | { readonly type: 'progress'; readonly share: number }
  | ({ readonly type: 'followed' } & LookedAtFootage)
  | { readonly type: 'faces'; readonly faces: readonly Face[] }
  | { readonly type: 'failed'; readonly message: string };
