import { colourSchema } from '../../colour';
import { vectorSchema } from '../../motion';
import type { TrackValue } from '../../motion';
import { numberSchema } from '../../time';

/** What kind of number a property holds; decides its validator, its editor and its default step. */
export const VALUE_KINDS = { number: numberSchema, vector: vectorSchema, colour: colourSchema } as const;
export type ValueKind = keyof typeof VALUE_KINDS;

export interface PropertyDefinition {
  readonly label: string;
  readonly kind: ValueKind;
  readonly unit: string;
  /** Stored value × factor is what the interface shows (opacity 0.5 reads 50 %). */
  readonly shownFactor: number;
  readonly min?: number;
  readonly max?: number;
  /** Change a pixel of dragging makes, in shown units. */
  readonly step: number;
}

const pixels = { unit: 'px', shownFactor: 1, step: 1 } as const;
const percent = { unit: '%', shownFactor: 100, step: 1 } as const;

/** Every property that can be keyframed. Lengths are pixels of the lead format; angles degrees clockwise. */
export const PROPERTIES = {
  position: { label: 'Position', kind: 'vector', ...pixels, min: -100_000, max: 100_000 },
  scale: { label: 'Scale', kind: 'vector', ...percent, min: -100, max: 100 },
  rotation: { label: 'Rotation', kind: 'number', unit: '°', shownFactor: 1, step: 1, min: -36_000, max: 36_000 },
  skew: { label: 'Skew', kind: 'number', unit: '°', shownFactor: 1, step: 1, min: -80, max: 80 },
  anchor: { label: 'Anchor point', kind: 'vector', ...pixels, min: -100_000, max: 100_000 },
  opacity: { label: 'Opacity', kind: 'number', ...percent, min: 0, max: 1 },
  blur: { label: 'Blur', kind: 'number', ...pixels, min: 0, max: 200, step: 0.2 },
  size: { label: 'Size', kind: 'number', ...pixels, min: 1, max: 4000 },
  weight: { label: 'Weight', kind: 'number', unit: '', shownFactor: 1, step: 10, min: 1, max: 1000 },
  letterWidth: { label: 'Letter width', kind: 'number', unit: '%', shownFactor: 1, step: 1, min: 25, max: 200 },
  lean: { label: 'Font slant', kind: 'number', unit: '°', shownFactor: 1, step: 0.5, min: -90, max: 90 },
  /** 0 follows the size. */
  opticalSize: { label: 'Optical size', kind: 'number', ...pixels, min: 0, max: 1200 },
  // Axes that only some fonts have go by their order; their names are the font's.
  axisA: { label: 'Font axis 1', kind: 'number', ...percent, min: -1, max: 1 },
  axisB: { label: 'Font axis 2', kind: 'number', ...percent, min: -1, max: 1 },
  axisC: { label: 'Font axis 3', kind: 'number', ...percent, min: -1, max: 1 },
  tracking: { label: 'Letter spacing', kind: 'number', ...percent, min: -0.5, max: 5 },
  leading: { label: 'Line spacing', kind: 'number', ...percent, min: 0.2, max: 5 },
  dimensions: { label: 'Size', kind: 'vector', ...pixels, min: 0, max: 20_000 },
  cornerRadius: { label: 'Corner radius', kind: 'number', ...pixels, min: 0, max: 20_000 },
  /** 0 is the path as drawn, 1 its first further form, 1.5 halfway to the second. */
  form: { label: 'Morph', kind: 'number', unit: '', shownFactor: 1, step: 0.01, min: 0, max: 16 },
  points: { label: 'Points', kind: 'number', unit: '', shownFactor: 1, step: 0.1, min: 3, max: 60 },
  inner: { label: 'Inner size', kind: 'number', ...percent, min: 0, max: 1 },
  head: { label: 'Head', kind: 'number', ...percent, min: 0, max: 1 },
  sweepFrom: { label: 'Arc start', kind: 'number', unit: '°', shownFactor: 1, step: 1, min: -36_000, max: 36_000 },
  sweep: { label: 'Arc length', kind: 'number', unit: '°', shownFactor: 1, step: 1, min: -360, max: 360 },
  fill: { label: 'Fill', kind: 'colour', unit: '', shownFactor: 1, step: 1 },
  fillEnd: { label: 'Gradient end', kind: 'colour', unit: '', shownFactor: 1, step: 1 },
  gradientAngle: {
    label: 'Gradient angle',
    kind: 'number',
    unit: '°',
    shownFactor: 1,
    step: 1,
    min: -36_000,
    max: 36_000,
  },
  stroke: { label: 'Stroke', kind: 'colour', unit: '', shownFactor: 1, step: 1 },
  strokeWidth: { label: 'Stroke width', kind: 'number', ...pixels, min: 0, max: 1000, step: 0.5 },
  drawStart: { label: 'Trim start', kind: 'number', ...percent, min: 0, max: 1 },
  drawEnd: { label: 'Trim end', kind: 'number', ...percent, min: 0, max: 1 },
  drawOffset: { label: 'Trim offset', kind: 'number', ...percent, min: -1000, max: 1000 },
  bend: { label: 'Bend', kind: 'number', unit: '°', shownFactor: 1, step: 1, min: -720, max: 720 },
  pathShift: { label: 'Path offset', kind: 'number', ...percent, min: -1000, max: 1000 },
  pictureZoom: { label: 'Picture size', kind: 'number', ...percent, min: 0.05, max: 20 },
  pictureShift: { label: 'Picture offset', kind: 'vector', ...percent, min: -20, max: 20 },
  /** The point of a picture that is brought as near to the middle of its frame as there is picture around it. */
  focus: { label: 'Focus', kind: 'vector', ...percent, min: 0, max: 1 },
  reveal: { label: 'Band reveal', kind: 'number', ...percent, min: 0, max: 1 },
} as const satisfies Record<string, PropertyDefinition>;
export type PropertyId = keyof typeof PROPERTIES;
export const PROPERTY_IDS = Object.keys(PROPERTIES) as PropertyId[]; // keys of a literal object

export const propertyDefinition = (id: PropertyId): PropertyDefinition => PROPERTIES[id];

export function isValueOf(id: PropertyId, value: TrackValue): boolean {
  return VALUE_KINDS[PROPERTIES[id].kind].safeParse(value).success;
}

/** The value clipped to what the property allows. */
export function clampValue(id: PropertyId, value: TrackValue): TrackValue {
  const { min = -Infinity, max = Infinity } = propertyDefinition(id);
  const clip = (n: number) => Math.min(max, Math.max(min, n));
  if (typeof value === 'number') return clip(value);
  if (Array.isArray(value)) return [clip(value[0]), clip(value[1])];
  return value;
}
