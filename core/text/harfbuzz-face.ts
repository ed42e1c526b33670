import type { FaceMetrics, ShapedGlyph, ShapingFace } from './shaper';

/** The part of harfbuzzjs that is used, so that core does not load the engine itself: the host passes it in. */
export interface HarfBuzz {
  Blob: new (data: Uint8Array) => object;
  Face: new (blob: never, index?: number) => { upem: number; getAxisInfos(): Record<string, { min?: number; max?: number; minValue?: number; maxValue?: number }> };
  Font: new (face: never) => {
    setVariations(variations: never[]): void;
    hExtents(): { ascender: number; descender: number };
    glyphToPath(glyphId: number): string;
    getMetricPositionWithFallback(tag: never): number;
  };
  Buffer: new () => {
    addText(text: string): void;
    guessSegmentProperties(): void;
    setDirection(direction: never): void;
    getGlyphInfosAndPositions(): { codepoint: number; cluster: number; xAdvance?: number; xOffset?: number; yOffset?: number }[];
  };
  Variation: new (tag: string, value: number) => object;
  Feature: { fromString(text: string): object | undefined };
  shape(font: never, buffer: never, features?: never): void;
  Direction: Record<string, unknown>;
  MetricsTag: Record<string, unknown>;
}

/** Weights are quantised to whole units: animated axes then hit the outline cache. */
const quantise = (weight: number): number => Math.round(weight);
const OUTLINE_CACHE = 8000;

/**
 * A face shaped by HarfBuzz. The engine's objects are garbage-collected by its own finalisers.
 * @param bytes - an sfnt file (TTF or OTF); both hosts must use the same bytes.
 */
export function createHarfBuzzFace(hb: HarfBuzz, id: string, bytes: Uint8Array): ShapingFace {
  // The casts to never bridge the structural subset above to the engine's own classes.
  const face = new hb.Face(new hb.Blob(bytes) as never);
  const font = new hb.Font(face as never);
  const hasWeight = 'wght' in face.getAxisInfos();
  let current = Number.NaN;
  const outlines = new Map<string, string>();
  const metricsCache = new Map<number, FaceMetrics>();

  const setWeight = (weight: number) => {
    const wanted = quantise(weight);
    if (hasWeight && wanted !== current) {
      font.setVariations([new hb.Variation('wght', wanted) as never]);
      current = wanted;
    }
  };

  return {
    id,
    metrics(weight) {
      const key = quantise(weight);
      const known = metricsCache.get(key);
      if (known) return known;
      setWeight(weight);
      const { ascender, descender } = font.hExtents();
      const capHeight = font.getMetricPositionWithFallback(hb.MetricsTag.CAP_HEIGHT as never);
      const metrics: FaceMetrics = { unitsPerEm: face.upem, ascender, descender, capHeight: capHeight > 0 ? capHeight : ascender * 0.7 };
      metricsCache.set(key, metrics);
      return metrics;
    },
    shape(text, { rtl, weight, features = [] }) {
      setWeight(weight);
      const buffer = new hb.Buffer();
      buffer.addText(text);
      buffer.guessSegmentProperties();
      buffer.setDirection((rtl ? hb.Direction.RTL : hb.Direction.LTR) as never);
      hb.shape(font as never, buffer as never, features.map((f) => hb.Feature.fromString(f)).filter((f) => f !== undefined) as never);
      return buffer.getGlyphInfosAndPositions().map((g): ShapedGlyph => ({ glyphId: g.codepoint, cluster: g.cluster, advance: g.xAdvance ?? 0, xOffset: g.xOffset ?? 0, yOffset: g.yOffset ?? 0 }));
    },
    outline(glyphId, weight) {
      const key = `${glyphId}@${quantise(weight)}`;
      const known = outlines.get(key);
      if (known !== undefined) return known;
      setWeight(weight);
      const path = font.glyphToPath(glyphId);
      if (outlines.size >= OUTLINE_CACHE) outlines.clear();
      outlines.set(key, path);
      return path;
    },
  };
}
