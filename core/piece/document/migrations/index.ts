import { toVersion2 } from './0002-tree';
import { toVersion3 } from './0003-runs';
import { toVersion4 } from './0004-paints';
import { toVersion5 } from './0005-time-and-forms';
import { toVersion6 } from './0006-pieces-within';
import { toVersion7 } from './0007-spelling-and-framing';
import { toVersion8 } from './0008-heard-anew';

/** A document of any version as it comes: an object of which nothing is known yet. */
export type Json = Readonly<Record<string, unknown>>;

/** From each version to the next. A step takes what its version allowed, valid or not, and never looks at the schema. */
export const MIGRATIONS: Readonly<Record<number, (document: Json) => Json>> = {
  1: toVersion2,
  2: toVersion3,
  3: toVersion4,
  4: toVersion5,
  5: toVersion6,
  6: toVersion7,
  7: toVersion8,
};
