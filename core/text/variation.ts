import * as z from 'zod';
import { numberSchema, textSchema } from '../time';

/** An axis of a variable font (OpenType `fvar`). */
export const fontAxisSchema = z.strictObject({
  tag: textSchema(4).length(4),
  name: textSchema(80),
  min: numberSchema,
  default: numberSchema,
  max: numberSchema,
});
export type FontAxis = z.infer<typeof fontAxisSchema>;

/** Where on its axes a text wants to be, in terms that fit any font: what a font has no axis for is passed over. */
export interface AxisSetting {
  /** 1 to 1000. */
  readonly weight: number;
  /** Per cent of the normal width of letters. */
  readonly width?: number;
  /** Degrees to the right. */
  readonly lean?: number;
  /** Size in pixels for which the letters are to be drawn. */
  readonly opticalSize?: number;
  /** The font's other axes in the order of its table: −1 is the least, 0 the font's own, 1 the most. */
  readonly further?: readonly number[];
}

const REGISTERED = new Set(['wght', 'wdth', 'slnt', 'opsz', 'ital']);
/** The axes that are named by the font alone. */
export const furtherAxes = (axes: readonly FontAxis[]): FontAxis[] => axes.filter((axis) => !REGISTERED.has(axis.tag));

/**
 * Values in axis units are quantised so that animated axes hit the outline cache: whole weights, hundredths of the
 * others.
 */
const quantise = (tag: string, value: number): number =>
  tag === 'wght' ? Math.round(value) : Math.round(value * 100) / 100;

/**
 * Values for the axes a font has, each within its limits. An axis that nothing is said about stays at the font's own.
 */
export function axisValues(axes: readonly FontAxis[], setting: AxisSetting): (readonly [tag: string, value: number])[] {
  const others = furtherAxes(axes);
  return axes.map((axis) => {
    const wanted =
      axis.tag === 'wght'
        ? setting.weight
        : axis.tag === 'wdth'
          ? setting.width
          : axis.tag === 'slnt'
            ? setting.lean === undefined
              ? undefined
              : -setting.lean
            : axis.tag === 'opsz'
              ? setting.opticalSize
              : shareOf(axis, setting.further?.[others.indexOf(axis)]);
    return [axis.tag, quantise(axis.tag, Math.min(axis.max, Math.max(axis.min, wanted ?? axis.default)))] as const;
  });
}

function shareOf(axis: FontAxis, share: number | undefined): number | undefined {
  if (share === undefined) return undefined;
  return axis.default + share * (share < 0 ? axis.default - axis.min : axis.max - axis.default);
}

/** Says the same for equal settings. */
export const printSetting = (s: AxisSetting): string =>
  `${Math.round(s.weight)},${s.width?.toFixed(1) ?? ''},${s.lean?.toFixed(1) ?? ''},${s.opticalSize?.toFixed(1) ?? ''},${s.further?.map((v) => v.toFixed(3)).join() ?? ''}`;
