import * as z from 'zod';
import { cubicBezier } from './cubic-bezier';

/**
 * Easing: how a segment between two keyframes runs. Every kind maps progress u in [0, 1] to a blend amount with
 * f(0) = 0 and f(1) = 1 (hold jumps at 1); amounts outside [0, 1] overshoot.
 */
type Curve = (u: number) => number;

const power =
  (n: number): Curve =>
  (u) =>
    u ** n;
const sineIn: Curve = (u) => 1 - Math.cos((u * Math.PI) / 2);
const expoIn: Curve = (u) => (2 ** (10 * u) - 1) / 1023;
const circleIn: Curve = (u) => 1 - Math.sqrt(1 - u * u);
const backIn: Curve = (u) => u * u * (2.70158 * u - 1.70158);
const out =
  (f: Curve): Curve =>
  (u) =>
    1 - f(1 - u);
const inOut =
  (f: Curve): Curve =>
  (u) =>
    u < 0.5 ? f(2 * u) / 2 : 1 - f(2 - 2 * u) / 2;

/** Named curves: one entry adds a curve to the validator, the menu and the documentation. */
export const NAMED_CURVES = {
  'ease-in': { label: 'Ease in', curve: (u: number) => cubicBezier(0.42, 0, 1, 1, u) },
  'ease-out': { label: 'Ease out', curve: (u: number) => cubicBezier(0, 0, 0.58, 1, u) },
  'ease-in-out': { label: 'Ease in and out', curve: (u: number) => cubicBezier(0.42, 0, 0.58, 1, u) },
  'sine-in': { label: 'Sine in', curve: sineIn },
  'sine-out': { label: 'Sine out', curve: out(sineIn) },
  'sine-in-out': { label: 'Sine in and out', curve: inOut(sineIn) },
  'cubic-in': { label: 'Cubic in', curve: power(3) },
  'cubic-out': { label: 'Cubic out', curve: out(power(3)) },
  'cubic-in-out': { label: 'Cubic in and out', curve: inOut(power(3)) },
  'quint-in': { label: 'Quintic in', curve: power(5) },
  'quint-out': { label: 'Quintic out', curve: out(power(5)) },
  'quint-in-out': { label: 'Quintic in and out', curve: inOut(power(5)) },
  'expo-in': { label: 'Exponential in', curve: expoIn },
  'expo-out': { label: 'Exponential out', curve: out(expoIn) },
  'expo-in-out': { label: 'Exponential in and out', curve: inOut(expoIn) },
  'circle-in': { label: 'Circular in', curve: circleIn },
  'circle-out': { label: 'Circular out', curve: out(circleIn) },
  'back-in': { label: 'Anticipate', curve: backIn },
  'back-out': { label: 'Overshoot', curve: out(backIn) },
  'back-in-out': { label: 'Anticipate and overshoot', curve: inOut(backIn) },
} as const satisfies Record<string, { label: string; curve: Curve }>;
export type CurveName = keyof typeof NAMED_CURVES;
const curveNames = Object.keys(NAMED_CURVES) as [CurveName, ...CurveName[]];

/** How far a drawn curve may overshoot. */
const curveAmount = z.number().min(-20).max(20);

export const easingSchema = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('linear') }),
  z.strictObject({ type: z.literal('hold') }),
  z.strictObject({
    type: z.literal('bezier'),
    x1: z.number().min(0).max(1),
    y1: curveAmount,
    x2: z.number().min(0).max(1),
    y2: curveAmount,
  }),
  z.strictObject({ type: z.literal('named'), name: z.enum(curveNames) }),
  /** `oscillations`: undamped cycles within the segment; `damping`: damping ratio, 1 is critical. */
  z.strictObject({
    type: z.literal('spring'),
    oscillations: z.number().min(0.25).max(12),
    damping: z.number().min(0.05).max(1),
  }),
  /** `bounces`: touches after the first; `restitution`: share of the speed kept at a touch. */
  z.strictObject({
    type: z.literal('bounce'),
    bounces: z.number().int().min(0).max(8),
    restitution: z.number().min(0.1).max(0.95),
  }),
]);
export type Easing = z.infer<typeof easingSchema>;
export type EasingType = Easing['type'];

/**
 * Step response of a damped harmonic oscillator, x(t) = 1 − e^(−ζωt)(cos ω_d t + (ζω/ω_d) sin ω_d t) with
 * ω = 2π·oscillations and t = u; scaled so that the end of the segment is exactly 1, because a spring cut short is not
 * at rest.
 */
function spring(oscillations: number, damping: number, u: number): number {
  const w = 2 * Math.PI * oscillations;
  const response = (t: number) => {
    const decay = Math.exp(-damping * w * t);
    if (damping >= 1) return 1 - decay * (1 + w * t);
    const wd = w * Math.sqrt(1 - damping * damping);
    return 1 - decay * (Math.cos(wd * t) + ((damping * w) / wd) * Math.sin(wd * t));
  };
  // Adding a ramp keeps f(0) = 0, f(1) = 1 and, unlike dividing, never flips the sign of a weakly damped spring.
  return response(u) + u * (1 - response(1));
}

/**
 * A body falling on a floor (value 1): the first fall lasts 1 unit, each later arc 2·restitution^k units, all
 * scaled to fill the segment. Height of an arc goes with the square of its flight time, as under constant gravity.
 */
function bounce(bounces: number, restitution: number, u: number): number {
  let total = 1;
  for (let k = 1; k <= bounces; k++) total += 2 * restitution ** k;
  let t = u * total;
  if (t <= 1) return t * t;
  t -= 1;
  for (let k = 1; k <= bounces; k++) {
    const half = restitution ** k;
    if (t <= 2 * half) return 1 - (half * half - (t - half) ** 2);
    t -= 2 * half;
  }
  return 1;
}

/** Blend amount at progress u; u is clamped to [0, 1]. */
export function evaluateEasing(easing: Easing, u: number): number {
  if (u <= 0) return 0;
  if (u >= 1) return 1;
  switch (easing.type) {
    case 'linear':
      return u;
    case 'hold':
      return 0;
    case 'bezier':
      return cubicBezier(easing.x1, easing.y1, easing.x2, easing.y2, u);
    case 'named':
      return NAMED_CURVES[easing.name].curve(u);
    case 'spring':
      return spring(easing.oscillations, easing.damping, u);
    case 'bounce':
      return bounce(easing.bounces, easing.restitution, u);
  }
}

/**
 * The easing that runs backwards in time: 1 − f(1 − u), used when keyframes are reversed. Physical kinds keep their
 * kind.
 */
export function reverseEasing(easing: Easing): Easing {
  if (easing.type === 'bezier')
    return { type: 'bezier', x1: 1 - easing.x2, y1: 1 - easing.y2, x2: 1 - easing.x1, y2: 1 - easing.y1 };
  if (easing.type === 'named') {
    const name = easing.name;
    const swapped = name.endsWith('-in-out')
      ? name
      : name.endsWith('-in')
        ? name.replace(/-in$/, '-out')
        : name.replace(/-out$/, '-in');
    return { type: 'named', name: swapped as CurveName }; // every -in curve of the table has its -out twin
  }
  return easing;
}

export const DEFAULT_EASING: Easing = { type: 'named', name: 'ease-in-out' };
