import { evenSide } from './even-side';

/** What painting threads hand over: BT.709 in limited range, or straight RGBA. */
export type PixelKind = 'i420' | 'rgba';

/** Bytes of a pixel. */
export const PIXEL_BYTES: Readonly<Record<PixelKind, number>> = { i420: 1.5, rgba: 4 };

/** The sides of the frames that are handed over: 4:2:0 needs even ones. */
export const sidesFor = (pixels: PixelKind, width: number, height: number): { width: number; height: number } =>
  pixels === 'i420' ? { width: evenSide(width), height: evenSide(height) } : { width, height };
