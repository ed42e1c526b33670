import type { PropertyId } from '@core/piece';
import { WORDS } from './words';

/** Sections of the details, in their order; `own` holds what only this kind of layer has. */
export const SECTION_IDS = [
  'own',
  'transform',
  'paint',
  'compositing',
  'more',
  'motion',
  'frames',
  'keyframes',
] as const;
export type SectionId = (typeof SECTION_IDS)[number];

/** Headings of the sections; the one of `own` is the name of the layer's kind. */
export const SECTION_TITLES: Readonly<Record<Exclude<SectionId, 'own'>, string>> = {
  transform: WORDS.transform,
  paint: WORDS.fillAndStroke,
  compositing: WORDS.compositing,
  more: WORDS.more,
  motion: WORDS.effectsAndMotion,
  frames: WORDS.frameSizes,
  keyframes: WORDS.keyframes,
};

const SHARED: Partial<Record<PropertyId, SectionId>> = {
  position: 'transform',
  scale: 'transform',
  rotation: 'transform',
  skew: 'transform',
  anchor: 'transform',
  fill: 'paint',
  fillEnd: 'paint',
  gradientAngle: 'paint',
  stroke: 'paint',
  strokeWidth: 'paint',
  drawStart: 'paint',
  drawEnd: 'paint',
  drawOffset: 'paint',
  opacity: 'compositing',
  blur: 'compositing',
};

/** The section that a property stands in. */
export const sectionOf = (property: PropertyId): SectionId => SHARED[property] ?? 'own';
