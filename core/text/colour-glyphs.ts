import type { Colour } from '../colour';

/** A layer of a letter that has colours of its own: an outline, and its colour, or null for the text's. */
export interface ColourLayer {
  readonly glyphId: number;
  readonly colour: Colour | null;
}

/** Palette index that stands for the colour of the text (OpenType 1.9, COLR). */
const TEXT_COLOUR = 0xffff;
const BASE_RECORD = 6;
const LAYER_RECORD = 4;
/** More layers than this are no letter but an attempt to keep the painter busy. */
const MAX_LAYERS = 400;

const viewOf = (table: Uint8Array): DataView => new DataView(table.buffer, table.byteOffset, table.byteLength);
const hex = (value: number): string => value.toString(16).padStart(2, '0');

/** The first palette of a CPAL table; its records are blue, green, red, alpha. Stops where the table ends. */
function readPalette(table: Uint8Array): Colour[] {
  if (table.byteLength < 14) return [];
  const view = viewOf(table);
  const [count, at, first] = [view.getUint16(2), view.getUint32(8), view.getUint16(12)];
  const out: Colour[] = [];
  for (let i = 0; i < count && at + 4 * (first + i) + 4 <= table.byteLength; i++) {
    const [blue = 0, green = 0, red = 0, alpha = 0] = table.subarray(at + 4 * (first + i));
    out.push(`#${hex(red)}${hex(green)}${hex(blue)}${alpha === 255 ? '' : hex(alpha)}`);
  }
  return out;
}

/**
 * Looks up the layers of letters in colour, lowest first, in the first palette.
 * @returns A function that gives null for a letter without colours; null for a font without any. Records that point
 * outside the tables are left out.
 * @see OpenType 1.9, tables COLR (version 0; gradients of version 1 are not read) and CPAL.
 */
export function readColourGlyphs(
  colr: Uint8Array | undefined,
  cpal: Uint8Array | undefined,
): ((glyphId: number) => readonly ColourLayer[] | null) | null {
  if (!colr || !cpal || colr.byteLength < 14) return null;
  const view = viewOf(colr);
  const [baseCount, baseAt, layersAt] = [view.getUint16(2), view.getUint32(4), view.getUint32(8)];
  const layerCount = view.getUint16(12);
  if (baseCount === 0 || baseAt + baseCount * BASE_RECORD > colr.byteLength) return null;
  const palette = readPalette(cpal);

  /** Records stand in the order of glyphs: a binary search. */
  const recordOf = (glyphId: number): number | null => {
    let [low, high] = [0, baseCount - 1];
    while (low <= high) {
      const middle = (low + high) >> 1;
      const at = baseAt + middle * BASE_RECORD;
      const id = view.getUint16(at);
      if (id === glyphId) return at;
      if (id < glyphId) low = middle + 1;
      else high = middle - 1;
    }
    return null;
  };

  return (glyphId) => {
    const record = recordOf(glyphId);
    if (record === null) return null;
    const [first, count] = [view.getUint16(record + 2), view.getUint16(record + 4)];
    const layers: ColourLayer[] = [];
    for (let i = first; i < Math.min(first + Math.min(count, MAX_LAYERS), layerCount); i++) {
      const at = layersAt + i * LAYER_RECORD;
      if (at + LAYER_RECORD > colr.byteLength) break;
      const colour = view.getUint16(at + 2);
      layers.push({ glyphId: view.getUint16(at), colour: colour === TEXT_COLOUR ? null : (palette[colour] ?? null) });
    }
    return layers;
  };
}
