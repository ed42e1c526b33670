import { createMemo } from '../time';
import type { Matrix } from './matrix';

/** Shapes made of shapes: what they have together, what one takes from another. */

export const PATH_OPERATIONS = {
  union: { label: 'Union', engine: 'UNION' },
  subtract: { label: 'Subtract', engine: 'DIFFERENCE' },
  intersect: { label: 'Intersect', engine: 'INTERSECT' },
  exclude: { label: 'Exclude', engine: 'XOR' },
} as const;
export type PathOperation = keyof typeof PATH_OPERATIONS;

interface EnginePath {
  setFillType(type: unknown): void;
  transform(a: number, c: number, e: number, b: number, d: number, f: number, x: number, y: number, w: number): unknown;
  op(other: EnginePath, operation: unknown): unknown;
  simplify(): unknown;
  toSVGString(): string;
  /** Its memory is the engine's own and is not collected. */
  delete(): void;
}

/** The part of pathkit-wasm (Skia's path operations) that is used; the host hands it in, so core loads no engine. */
export interface PathEngine {
  FromSVGString(d: string): EnginePath | null;
  NewPath(): EnginePath;
  readonly PathOp: Readonly<Record<string, unknown>>;
  readonly FillType: Readonly<Record<string, unknown>>;
}

let engine: PathEngine | null = null;

/** Hands in the engine, once a thread, before anything is drawn that is made of several shapes. */
export function providePathEngine(given: PathEngine): void {
  engine = given;
}
export const hasPathEngine = (): boolean => engine !== null;

/** A path and where it lies. */
export interface PlacedPath {
  readonly d: string;
  readonly rule: 'nonzero' | 'evenodd';
  readonly matrix: Matrix;
}

/** Enough for the frames about the playhead of several shapes. */
const known = createMemo<string>(400);

/** What belongs together: letters of a word, parts of a logo. They are one path before anything is done to it. */
export type PathSet = readonly PlacedPath[];

function pathOf(skia: PathEngine, set: PathSet): EnginePath {
  const whole = skia.NewPath();
  for (const { d, rule, matrix } of set) {
    const path = skia.FromSVGString(d);
    if (!path) continue;
    path.setFillType(rule === 'evenodd' ? skia.FillType.EVENODD : skia.FillType.WINDING);
    const [a, b, c, e, x, y] = matrix;
    path.transform(a, c, x, b, e, y, 0, 0, 1);
    whole.op(path, skia.PathOp.UNION);
    path.delete();
  }
  return whole;
}

/**
 * One path of several sets, filled by the rule `evenodd`; curves stay curves. The first set is what others are taken
 * from.
 * @returns SVG path data in the coordinates the matrices lead to; empty if nothing is left or no engine is there yet.
 */
export function combinedPath(sets: readonly PathSet[], operation: PathOperation): string {
  const skia = engine;
  if (!skia || sets.length === 0) return '';
  const key =
    operation + sets.map((set) => set.map(({ d, rule, matrix }) => `${rule}${matrix.join()}${d}`).join('~')).join('|');
  return known(key, () => {
    const [first, ...others] = sets.map((set) => pathOf(skia, set));
    if (!first) return '';
    for (const other of others) first.op(other, skia.PathOp[PATH_OPERATIONS[operation].engine]);
    const d = first.toSVGString();
    for (const path of [first, ...others]) path.delete();
    return d;
  });
}
