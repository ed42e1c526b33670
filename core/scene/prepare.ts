import { evaluateTrack, prepareTrack } from '../motion';
import type { PreparedTrack, TrackValue, Vector } from '../motion';
import { kindProperties } from '../piece';
import type { Format, Layer, Piece, PropertyId, ResolvedTimes } from '../piece';
import { framesPerSecond } from '../time';
import type { FrameRate, Seconds } from '../time';
import { prepareGesture } from './movement/gesture-timing';
import type { PreparedGesture } from './movement/gesture-timing';

/** A layer with everything resolved that does not change from frame to frame. */
export interface PreparedLayer {
  readonly layer: Layer;
  readonly start: Seconds;
  readonly end: Seconds;
  readonly tracks: Partial<Record<PropertyId, PreparedTrack>>;
  readonly defaults: Partial<Record<PropertyId, TrackValue>>;
  /** From lead pixels to pixels of the format: uniform factor, then a move. */
  readonly fit: number;
  readonly move: readonly [number, number];
  readonly hidden: boolean;
  readonly mediaHash: string | null;
  readonly gestures: readonly PreparedGesture[];
  /** Seconds of each frame in which the shutter is open; 0 draws moments. */
  readonly shutter: Seconds;
}

export interface PreparedScene {
  readonly format: Format;
  readonly layers: readonly PreparedLayer[];
  readonly background: PreparedTrack;
}

/** A layer that asks for motion blur in a piece without has the usual shutter, open half the time. */
const DEFAULT_SHUTTER = 180;

const fillsArea = (layer: Layer): boolean => layer.kind === 'text' && layer.content.area !== null;

/** A layer counts as covering the frame if its box spans this share of both sides. */
const COVERING = 0.98;

function coversFrame(layer: Layer, lead: Format): boolean {
  const dimensions = layer.tracks.dimensions?.value as Vector | undefined;
  const scale = (layer.tracks.scale?.value as Vector | undefined) ?? [1, 1];
  return (
    dimensions !== undefined &&
    dimensions[0] * scale[0] >= lead.width * COVERING &&
    dimensions[1] * scale[1] >= lead.height * COVERING
  );
}

/** Pixels of a format that a pixel of the lead makes for a layer, before its own override. */
export function fitIn(layer: Layer, lead: Format, format: Format): number {
  // Words that fill a place of the frame keep their measure against its shorter side.
  if (fillsArea(layer)) return Math.min(format.width, format.height) / Math.min(lead.width, lead.height);
  const sides = [format.width / lead.width, format.height / lead.height] as const;
  return coversFrame(layer, lead) ? Math.max(...sides) : Math.min(...sides);
}

/** A roll is made this much larger or smaller at most, so that it moves whole pixels. */
const MOST_ROLL_CHANGE = 1.34;

/**
 * What a closing roll is scaled by besides, so that it moves whole pixels a frame in this format too: broken steps make
 * letters shimmer. 1 where that would change it much.
 */
function wholeSteps(layer: Layer, fit: number, rate: FrameRate, times: ResolvedTimes): number {
  if (layer.kind !== 'text' || !layer.content.phrase?.role.startsWith('credit-')) return 1;
  const [first, last] = layer.tracks.position?.keyframes ?? [];
  if (!first || !last || !Array.isArray(first.value) || !Array.isArray(last.value)) return 1;
  const frames = Math.round((times.timeOf(last.at) - times.timeOf(first.at)) * framesPerSecond(rate));
  const step = (Math.abs(first.value[1] - last.value[1]) / Math.max(1, frames)) * fit;
  const change = Math.max(1, Math.round(step)) / Math.max(1e-6, step);
  return change > MOST_ROLL_CHANGE || change < 1 / MOST_ROLL_CHANGE ? 1 : change;
}

/**
 * Makes a piece ready to be drawn in one of its formats. Formats other than the lead show the lead's arrangement scaled
 * to fit about the centre; what covers the lead's frame is scaled to cover; then the layer's own override applies.
 * @throws RangeError if the piece has no such format.
 */
export function prepareScene(piece: Piece, times: ResolvedTimes, formatId: string): PreparedScene {
  const format = piece.formats.find((f) => f.id === formatId);
  const lead = piece.formats.find((f) => f.id === piece.leadFormatId);
  if (!format || !lead) throw new RangeError(`the piece has no format ${formatId}`);
  const layers = piece.layers.map((layer): PreparedLayer => {
    const override = layer.overrides[formatId];
    const fit = fitIn(layer, lead, format);
    const tracks: Partial<Record<PropertyId, PreparedTrack>> = {};
    for (const [property, track] of Object.entries(layer.tracks))
      if (track) tracks[property as PropertyId] = prepareTrack(track, times.timeOf); // keys are validated by the schema
    const mediaId =
      layer.kind === 'picture' ? layer.content.mediaId : layer.kind === 'text' ? layer.content.picture : null;
    return {
      layer,
      start: times.timeOf(layer.start),
      end: times.timeOf(layer.end),
      tracks,
      defaults: kindProperties(layer.kind),
      fit: fit * (override?.scale ?? 1) * wholeSteps(layer, fit, piece.frameRate, times),
      move: override?.move ?? [0, 0],
      hidden: layer.hidden || (override?.hidden ?? false),
      gestures: layer.gestures.map((use) => prepareGesture(use, layer, piece.gestures, times)),
      shutter:
        layer.motionBlur === 'off' || (layer.motionBlur === 'piece' && piece.shutter === 0)
          ? 0
          : ((piece.shutter || DEFAULT_SHUTTER) / 360) * (piece.frameRate.den / piece.frameRate.num),
      mediaHash: mediaId === null ? null : (piece.media.find((m) => m.id === mediaId)?.hash ?? null),
    };
  });
  return { format, layers, background: prepareTrack(piece.background, times.timeOf) };
}

/** Value of a property at a time, or the kind's default if the layer has no such track. */
export function propertyAt(prepared: PreparedLayer, property: PropertyId, seconds: Seconds): TrackValue {
  const track = prepared.tracks[property];
  if (track) return evaluateTrack(track, seconds);
  const value = prepared.defaults[property];
  if (value === undefined) throw new RangeError(`a ${prepared.layer.kind} layer has no ${property}`);
  return value;
}
