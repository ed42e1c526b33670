import { createMemo } from '../time';
import { readColourGlyphs } from './colour-glyphs';
import type { FaceMetrics, ShapedGlyph, ShapingFace } from './shaper';
import { axisValues } from './variation';
import type { AxisSetting, FontAxis } from './variation';

/** A font file as the engine holds it. */
export interface FontFaceObject {
  readonly upem: number;
  getAxisInfos(): Record<string, { min: number; default: number; max: number }>;
  collectUnicodes(): Uint32Array;
  referenceTable(table: string): Uint8Array | undefined;
  getName(nameId: number, language: string): string;
}

/** The part of harfbuzzjs that is used, so that core does not load the engine itself: the host passes it in. */
export interface HarfBuzz {
  Blob: new (data: Uint8Array) => object;
  Face: new (blob: never, index?: number) => FontFaceObject;
  Font: new (face: never) => {
    setVariations(variations: never[]): void;
    hExtents(): { ascender: number; descender: number };
    glyphToPath(glyphId: number): string;
    nominalGlyph(unicode: number): number | undefined;
    getMetricPositionWithFallback(tag: never): number;
  };
  Buffer: new () => {
    addText(text: string): void;
    guessSegmentProperties(): void;
    setDirection(direction: never): void;
    getGlyphInfosAndPositions(): {
      codepoint: number;
      cluster: number;
      xAdvance?: number;
      xOffset?: number;
      yOffset?: number;
    }[];
  };
  Variation: new (tag: string, value: number) => object;
  Feature: { fromString(text: string): object | undefined };
  shape(font: never, buffer: never, features?: never): void;
  Direction: Record<string, unknown>;
  MetricsTag: Record<string, unknown>;
}

/**
 * A table of a face as bytes of our own: those of the engine lie in its memory, which moves when anything asks it for more.
 */
export const tableOf = (face: FontFaceObject, tag: string): Uint8Array | undefined => face.referenceTable(tag)?.slice();

const OUTLINE_CACHE = 8000;

/** Axes as the engine tells them; names are the tags. */
export function axesOf(face: FontFaceObject): FontAxis[] {
  return Object.entries(face.getAxisInfos()).map(([tag, info]) => ({
    tag,
    name: tag,
    min: info.min,
    default: info.default,
    max: info.max,
  }));
}

/**
 * A face shaped by HarfBuzz. The engine's objects are garbage-collected by its own finalisers.
 * @param bytes - an sfnt file (TTF or OTF); both hosts must use the same bytes.
 */
export function createHarfBuzzFace(hb: HarfBuzz, id: string, bytes: Uint8Array): ShapingFace {
  // The casts to never bridge the structural subset above to the engine's own classes.
  const face = new hb.Face(new hb.Blob(bytes) as never);
  const font = new hb.Font(face as never);
  const axes = axesOf(face);
  const colours = readColourGlyphs(tableOf(face, 'COLR'), tableOf(face, 'CPAL'));
  let current = '';
  const outlines = createMemo<string>(OUTLINE_CACHE);
  const metricsCache = new Map<string, FaceMetrics>();
  // A setting serves many glyphs; what it comes to in this face is worked out once.
  const resolved = new WeakMap<AxisSetting, { key: string; values: readonly (readonly [string, number])[] }>();

  const resolve = (setting: AxisSetting) => {
    let own = resolved.get(setting);
    if (!own) {
      const values = axisValues(axes, setting);
      own = { key: values.join(';'), values };
      resolved.set(setting, own);
    }
    return own;
  };
  const goTo = (setting: AxisSetting): string => {
    const { key, values } = resolve(setting);
    if (key !== current) {
      font.setVariations(values.map(([tag, value]) => new hb.Variation(tag, value) as never));
      current = key;
    }
    return key;
  };
  const metric = (tag: 'CAP_HEIGHT' | 'X_HEIGHT') => font.getMetricPositionWithFallback(hb.MetricsTag[tag] as never);

  return {
    id,
    axes,
    has: (codePoint) => (font.nominalGlyph(codePoint) ?? 0) !== 0,
    metrics(setting) {
      const { key } = resolve(setting);
      const known = metricsCache.get(key);
      if (known) return known;
      goTo(setting);
      const { ascender, descender } = font.hExtents();
      const [capHeight, xHeight] = [metric('CAP_HEIGHT'), metric('X_HEIGHT')];
      const metrics: FaceMetrics = {
        unitsPerEm: face.upem,
        ascender,
        descender,
        capHeight: capHeight > 0 ? capHeight : ascender * 0.7,
        xHeight: xHeight > 0 ? xHeight : ascender * 0.5,
      };
      metricsCache.set(key, metrics);
      return metrics;
    },
    shape(text, { rtl, setting, features = [] }) {
      goTo(setting);
      const buffer = new hb.Buffer();
      buffer.addText(text);
      buffer.guessSegmentProperties();
      buffer.setDirection((rtl ? hb.Direction.RTL : hb.Direction.LTR) as never);
      hb.shape(
        font as never,
        buffer as never,
        features.map((f) => hb.Feature.fromString(f)).filter((f) => f !== undefined) as never,
      );
      return buffer
        .getGlyphInfosAndPositions()
        .map((g): ShapedGlyph => ({
          glyphId: g.codepoint,
          cluster: g.cluster,
          advance: g.xAdvance ?? 0,
          xOffset: g.xOffset ?? 0,
          yOffset: g.yOffset ?? 0,
        }));
    },
    ...(colours ? { coloursOf: colours } : {}),
    outline(glyphId, setting) {
      const key = `${glyphId}@${resolve(setting).key}`;
      return outlines(key, () => {
        goTo(setting);
        return font.glyphToPath(glyphId);
      });
    },
  };
}
