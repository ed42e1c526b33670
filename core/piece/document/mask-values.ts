import type { TrackValue } from '../../motion';

/** A value of a mask as it begins and as it is shown. */
export interface MaskValue {
  readonly label: string;
  readonly begins: TrackValue;
  readonly unit?: string;
  /** What is shown, for one of what is kept. */
  readonly factor?: number;
  readonly min?: number;
  readonly max?: number;
}

/** Values of a mask that can be keyframed. Lengths are pixels of the lead format, angles degrees clockwise. */
export const MASK_VALUES = {
  position: { label: 'Position', begins: [0, 0] },
  scale: { label: 'Scale', begins: [1, 1], unit: '%', factor: 100 },
  rotation: { label: 'Rotation', begins: 0, unit: '°' },
  form: { label: 'Morph', begins: 0, min: 0, max: 16 },
  feather: { label: 'Feather', begins: 0, unit: 'px', min: 0, max: 400 },
  expansion: { label: 'Expansion', begins: 0, unit: 'px', min: -400, max: 400 },
  opacity: { label: 'Opacity', begins: 1, unit: '%', factor: 100, min: 0, max: 1 },
} as const satisfies Record<string, MaskValue>;
export type MaskValueId = keyof typeof MASK_VALUES;
export const MASK_VALUE_IDS = Object.keys(MASK_VALUES) as [MaskValueId, ...MaskValueId[]]; // keys of a literal object
export const maskValue = (id: MaskValueId): MaskValue => MASK_VALUES[id];
