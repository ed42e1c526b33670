import type { Patch } from 'immer';

/** What patches leave as it is, so that it need not be worked out or checked again. */

/** Whether a patch gives a standing value or a place in a format another number: nothing comes or goes by it. */
export const isValue = ({ op, path: [list, , field, , leaf] }: Patch): boolean =>
  op === 'replace' &&
  list === 'layers' &&
  ((field === 'tracks' && leaf === 'value') || (field === 'overrides' && (leaf === 'move' || leaf === 'scale')));

/** Fields of a layer that have no times in them. */
const TIMELESS = new Set([
  'name',
  'hidden',
  'locked',
  'blend',
  'content',
  'motionBlur',
  'trail',
  'constraints',
  'slot',
  'matte',
  'follow',
  'hug',
  'repeat',
]);

/**
 * Whether patches leave every moment of the document where it is: then what was resolved before still holds. A drag on
 * the canvas does.
 */
export const keepsTimes = (patches: readonly Patch[]): boolean =>
  patches.every(({ path, op, value }) => {
    const [list, , field, , leaf] = path;
    if (list !== 'layers' || path.length < 3) return false;
    if (TIMELESS.has(String(field))) return true;
    if (field === 'overrides') return leaf === 'move' || leaf === 'scale' || leaf === 'hidden';
    if (field !== 'tracks') return false;
    if (leaf === 'value') return true;
    // A whole track that comes or goes and holds no keyframes.
    const keyframes = (value as { keyframes?: unknown[] } | undefined)?.keyframes;
    return path.length === 4 && op === 'add' && keyframes?.length === 0;
  });
