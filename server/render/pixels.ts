import { evenSide } from './even-side';

/** What painting threads hand over: BT.709 in limited range, or straight RGBA. */
export type PixelKind = 'i420' | 'rgba';

/** Bytes of a pixel. */
export const PIXEL_BYTES: Readonly<Record<PixelKind, number>> = { i420: 1.5, rgba: 4 };

/** How much smaller frames are painted, so that no side is longer than this; 1 where there is no bound. */
export const paintedScale = (width: number, height: number, longerSide: number | null): number =>
  longerSide === null ? 1 : Math.min(1, longerSide / Math.max(width, height));

/** The sides of the frames that are handed over: 4:2:0 needs even ones. */
export const sidesFor = (pixels: PixelKind, width: number, height: number): { width: number; height: number } =>
  pixels === 'i420' ? { width: evenSide(width), height: evenSide(height) } : { width, height };
