import { trackThrough } from './actor';
import type { CurveName, Easing } from './easing';
import type { Vector } from './track';

/** What the gestures of the tables are put together from. */

export const e = (name: CurveName): Easing => ({ type: 'named', name });
export const OUT = e('quint-out');
export const SOFT = e('sine-in-out');
export const HOLD: Easing = { type: 'hold' };
export const t = trackThrough;
export const fade = (until: number): ReturnType<typeof t> => t([0, 0, e('sine-out')], [until, 1]);

export const DISTANCE = { label: 'Distance', min: 0, max: 12, default: 1, unit: 'em' } as const;
export const DIRECTION = { label: 'Direction', min: -180, max: 180, default: 90, unit: '°' } as const;
export const OVERSHOOT = { label: 'Overshoot', min: 0, max: 1, default: 0.3, unit: '%' } as const;
export const SOFTNESS = { label: 'Softness', min: 0, max: 1, default: 0.4, unit: '%' } as const;
export const AMOUNT = { label: 'Amount', min: 0, max: 1, default: 0.5, unit: '%' } as const;
export const ANGLE = { label: 'Turn', min: -360, max: 360, default: 90, unit: '°' } as const;

/** The place a length away at an angle: 0° is to the right, 90° below (y runs down). */
export const away = (distance: number, degrees: number): Vector => {
  const a = (degrees * Math.PI) / 180;
  return [Math.cos(a) * distance, Math.sin(a) * distance];
};
/** From this overshoot on a spring swings as fast as it can; below, it comes near the time that a plain arrival takes. */
const LIVELY = 0.15;
const SWINGS = { plain: 1.17, lively: 1.6 } as const;

/**
 * A spring that shoots past by about `overshoot` of the way; none is a plain arrival. Slow for little overshoot, so that
 * it arrives when the plain one does and the moment of landing does not leap between them.
 */
export const springy = (overshoot: number): Easing =>
  overshoot < 0.02
    ? OUT
    : {
        type: 'spring',
        oscillations: SWINGS.plain + (SWINGS.lively - SWINGS.plain) * Math.min(1, (overshoot - 0.02) / (LIVELY - 0.02)),
        damping: Math.min(0.95, Math.max(0.12, 0.85 - overshoot * 0.7)),
      };

export const letters = { unit: 'letter', order: 'forward', overlap: 0.8 } as const;
export const words = { unit: 'word', order: 'forward', overlap: 0.6 } as const;
export const whole = { unit: 'whole', order: 'forward', overlap: 1 } as const;
