import { colourSchema } from '../../colour';
import type { Colour } from '../../colour';
import type { TrackValue } from '../../motion';

/** A number of an effect, with its bounds. Lengths in `px` are pixels of the lead format. */
export interface EffectNumber {
  readonly label: string;
  readonly unit: 'px' | '%' | '°' | 's' | '';
  readonly min: number;
  readonly max: number;
  readonly begins: number;
}
export interface EffectColour {
  readonly label: string;
  readonly begins: Colour;
}
export type EffectParameter = EffectNumber | EffectColour;
export interface EffectKindRow {
  readonly label: string;
  readonly parameters: Readonly<Record<string, EffectParameter>>;
}

const px = <const L extends string>(label: L, max: number, begins: number, min = 0) =>
  ({ label, unit: 'px', min, max, begins }) as const;
const share = <const L extends string>(label: L, begins: number, max = 100, min = 0) =>
  ({ label, unit: '%', min, max, begins }) as const;
const angle = <const L extends string>(label: L, begins: number, max = 3600) =>
  ({ label, unit: '°', min: -max, max, begins }) as const;
const count = <const L extends string>(label: L, min: number, max: number, begins: number) =>
  ({ label, unit: '', min, max, begins }) as const;
const colour = <const L extends string>(label: L, begins: Colour) => ({ label, begins }) as const;

/** Effects, each a row: what it is called and its parameters with their bounds and what they begin with. */
export const EFFECT_KINDS = {
  blur: { label: 'Blur', parameters: { radius: { label: 'Radius', unit: 'px', min: 0, max: 200, begins: 0 } } },
  directional: { label: 'Directional blur', parameters: { length: px('Length', 400, 40), angle: angle('Angle', 0) } },
  zoom: { label: 'Zoom blur', parameters: { amount: share('Amount', 20) } },
  spin: { label: 'Radial blur', parameters: { angle: angle('Angle', 20, 180) } },
  glow: { label: 'Glow', parameters: { radius: px('Radius', 200, 24), strength: share('Strength', 100, 400) } },
  shadow: {
    label: 'Drop shadow',
    parameters: {
      colour: colour('Colour', '#000000A0'),
      x: px('X', 400, 6, -400),
      y: px('Y', 400, 10, -400),
      blur: px('Softness', 200, 12),
    },
  },
  inner: {
    label: 'Inner shadow',
    parameters: {
      colour: colour('Colour', '#000000A0'),
      x: px('X', 400, 4, -400),
      y: px('Y', 400, 6, -400),
      blur: px('Softness', 200, 8),
    },
  },
  long: {
    label: 'Long shadow',
    parameters: { colour: colour('Colour', '#11151B'), angle: angle('Angle', 45), length: px('Length', 1000, 120) },
  },
  outline: { label: 'Outline', parameters: { colour: colour('Colour', '#EEE9DF'), width: px('Width', 60, 6) } },
  feather: { label: 'Feather', parameters: { radius: px('Radius', 200, 20) } },
  grain: {
    label: 'Grain',
    parameters: {
      amount: share('Amount', 20),
      size: px('Size', 20, 1.5, 0.5),
      moves: count('Animated', 0, 1, 1),
      coloured: count('Coloured', 0, 1, 0),
    },
  },
  pixelate: { label: 'Pixelate', parameters: { size: px('Size', 200, 16, 1) } },
  posterise: { label: 'Posterise', parameters: { levels: count('Levels', 2, 32, 5) } },
  halftone: { label: 'Halftone', parameters: { size: px('Size', 100, 12, 3), angle: angle('Angle', 30) } },
  tear: { label: 'Edge tear', parameters: { amount: px('Amount', 100, 10), size: px('Size', 200, 30, 2) } },
  wave: {
    label: 'Wave',
    parameters: {
      amount: px('Amount', 200, 12),
      length: px('Length', 2000, 160, 4),
      phase: angle('Phase', 0, 36000),
      angle: angle('Angle', 0),
    },
  },
  ripple: {
    label: 'Ripple',
    parameters: { amount: px('Amount', 200, 12), length: px('Length', 2000, 120, 4), phase: angle('Phase', 0, 36000) },
  },
  chromatic: { label: 'Chromatic offset', parameters: { distance: px('Distance', 100, 6), angle: angle('Angle', 0) } },
  vignette: {
    label: 'Vignette',
    parameters: { colour: colour('Colour', '#000000'), amount: share('Amount', 60), size: share('Size', 50) },
  },
  tint: { label: 'Tint', parameters: { colour: colour('Colour', '#FFB74A'), amount: share('Amount', 100) } },
  duotone: {
    label: 'Duotone',
    parameters: { dark: colour('Dark', '#11151B'), light: colour('Light', '#FFB74A'), amount: share('Amount', 100) },
  },
  grey: { label: 'Black and white', parameters: { amount: share('Amount', 100) } },
  invert: { label: 'Invert', parameters: { amount: share('Amount', 100) } },
  levels: {
    label: 'Brightness and contrast',
    parameters: { brightness: share('Brightness', 0, 100, -100), contrast: share('Contrast', 0, 100, -100) },
  },
  strobe: { label: 'Strobe', parameters: { rate: count('Flashes per beat', 0.125, 16, 2), shown: share('Shown', 50) } },
  echo: {
    label: 'Echo',
    parameters: {
      copies: count('Copies', 1, 16, 4),
      apart: { label: 'Interval', unit: 's', min: 0.005, max: 2, begins: 0.08 },
      keeps: share('Opacity per copy', 60),
    },
  },
  shake: {
    label: 'Shake',
    parameters: {
      distance: px('Distance', 200, 12),
      turn: angle('Turn', 1, 90),
      rate: count('Shakes per second', 1, 60, 14),
      decay: { label: 'Decay', unit: 's', min: 0, max: 60, begins: 0 },
    },
  },
} as const satisfies Record<string, EffectKindRow>;
export type EffectKind = keyof typeof EFFECT_KINDS;

/** The parameters of a kind, by their ids. */
export const effectParameters = (kind: EffectKind): Readonly<Record<string, EffectParameter>> =>
  EFFECT_KINDS[kind].parameters;
/** A value as a parameter holds it, within its bounds; null if it is none for it. */
export function parameterValue(parameter: EffectParameter, value: TrackValue): TrackValue | null {
  if (isEffectColour(parameter)) return colourSchema.safeParse(value).success ? value : null;
  return typeof value === 'number' ? Math.min(parameter.max, Math.max(parameter.min, value)) : null;
}
export const isEffectColour = (parameter: EffectParameter): parameter is EffectColour => !('unit' in parameter);
