import type { Keyframe, TrackValue } from '@core/motion';
import {
  canListen,
  effectParameterOf,
  effectParameters,
  effectTrackId,
  heldTrack,
  isEffectColour,
  isPropertyId,
  propertyDefinition,
  trackLabel,
} from '@core/piece';
import type { Edit, Layer, Listen, PropertyId, ResolvedTimes, TrackId } from '@core/piece';
import { heardValueAt, prepareScene } from '@core/scene';
import { framesPerSecond, freeMoment } from '@core/time';
import { newId } from '../../platform/ids';
import { edit, openDocument, setView } from '../../store/desk-store';
import { WORDS } from './words';

/** What a value adds at the loudest when it begins to listen, by property. */
const FIRST_AMOUNT: Partial<Record<PropertyId, Listen['amount']>> = {
  position: [0, -40],
  scale: [0.25, 0.25],
  rotation: 8,
  opacity: 0.6,
  blur: 12,
  size: 24,
  weight: 200,
  tracking: 0.08,
  strokeWidth: 8,
  dimensions: [60, 60],
};

/** A value that can listen, as it is shown. */
export interface Listening {
  readonly label: string;
  readonly unit: string;
  readonly shownFactor: number;
  readonly isVector: boolean;
  readonly min: number;
  readonly max: number;
}

export function listeningOf(layer: Layer, id: TrackId): Listening {
  const label = trackLabel(layer, id);
  const parameter = effectParameterOf(layer, id);
  if (parameter && !isEffectColour(parameter.is)) {
    const { unit, min, max } = parameter.is;
    return { label, unit, shownFactor: 1, isVector: false, min, max };
  }
  if (!isPropertyId(id)) return { label, unit: '', shownFactor: 1, isVector: false, min: 0, max: 1 };
  const { unit, shownFactor, kind, min = 0, max = 1 } = propertyDefinition(id);
  return { label, unit, shownFactor, isVector: kind === 'vector', min, max };
}

/** Parameters of a layer's effects that can listen. */
export const listeningParameters = (layer: Layer): TrackId[] =>
  layer.effects.flatMap((effect) =>
    Object.keys(effectParameters(effect.kind))
      .map((id) => effectTrackId(effect.id, id))
      .filter((id) => canListen(layer, id)),
  );

export function startListening(layer: Layer, property: TrackId): string {
  const { isVector, min, max } = listeningOf(layer, property);
  const range = Math.min(100, max - min) * 0.2;
  const listen: Listen = {
    id: newId(),
    property,
    source: 'low',
    amount: (isPropertyId(property) ? FIRST_AMOUNT[property] : undefined) ?? (isVector ? [range, range] : range),
    attack: 0,
    release: 0.2,
    smoothing: 0,
    curve: 1,
    range: [0, 1],
  };
  edit([{ type: 'listen.put', layerId: layer.id, listen }]);
  return listen.id;
}

/** Share of the amount by which keyframes may miss what was heard. */
const CLOSE = 0.01;
const MOST_KEYFRAMES = 1500;

/** Indices of the points that make a line close to all (Ramer 1972, Douglas and Peucker 1973), in order. */
export function keyPoints(values: readonly number[], tolerance: number): number[] {
  const kept = new Set([0, values.length - 1]);
  const open: [number, number][] = [[0, values.length - 1]];
  for (let range = open.pop(); range; range = open.pop()) {
    const [from, to] = range;
    let [worst, at] = [tolerance, -1];
    for (let i = from + 1; i < to; i++) {
      const t = (i - from) / (to - from);
      const off = Math.abs(values[i]! - (values[from]! + (values[to]! - values[from]!) * t)); // within the list
      if (off > worst) [worst, at] = [off, i];
    }
    if (at < 0) continue;
    kept.add(at);
    open.push([from, at], [at, to]);
  }
  return [...kept].filter((i) => i >= 0).sort((a, b) => a - b);
}

const sizeOf = (value: TrackValue): number =>
  typeof value === 'number' ? value : Array.isArray(value) ? value[0] + value[1] : 0;

/** The edits that give a value keyframes; a parameter of an effect may have had no track so far. */
function setKeyframes(layer: Layer, id: TrackId, keyframes: readonly Keyframe[]): Edit[] {
  const parameter = effectParameterOf(layer, id);
  if (!parameter)
    return [{ type: 'keys.add', keys: keyframes.map((key) => ({ layerId: layer.id, property: id, key })) }];
  const track = { value: keyframes[0]?.value ?? parameter.is.begins, keyframes: [...keyframes] };
  return [{ type: 'effect.setTrack', layerId: layer.id, id: parameter.effectId, parameter: parameter.id, track }];
}

/** Puts keyframes in the place of listening: the value as it was heard, over the layer's time. */
export function listenToKeyframes(layer: Layer, listen: Listen): void {
  const o = openDocument();
  if (!o) return;
  const { piece, times } = o;
  const prepared = prepareScene(piece, times, piece.leadFormatId).byId.get(layer.id);
  if (!prepared) return;
  const step = 1 / framesPerSecond(piece.frameRate);
  const count = Math.max(2, Math.ceil((prepared.end - prepared.start) / step) + 1);
  const at = (i: number): number => Math.min(prepared.end, prepared.start + i * step);
  const heard = Array.from({ length: count }, (_, i) => heardValueAt(prepared, listen.property, at(i)));
  const loudest = Math.max(...[listen.amount].flat().map(Math.abs));
  const kept = keyPoints(heard.map(sizeOf), Math.max(1e-4, loudest * CLOSE)).slice(0, MOST_KEYFRAMES);
  const old = heldTrack(layer, listen.property)?.keyframes ?? [];
  const keyframes = kept.map((i): Keyframe => ({
    id: newId(),
    at: freeMoment(at(i)),
    value: heard[i]!, // an index of the list
    easing: { type: 'linear' },
  }));
  const edits: Edit[] = [
    { type: 'listen.remove', layerId: layer.id, id: listen.id },
    ...(old.length > 0
      ? [
          {
            type: 'keys.remove' as const,
            refs: old.map((key) => ({ layerId: layer.id, property: listen.property, keyId: key.id })),
          },
        ]
      : []),
    ...setKeyframes(layer, listen.property, keyframes),
  ];
  if (edit(edits)) setView({ notice: WORDS.keyframesMade(kept.length) });
}

/** What a listening value hears over the layer's time, in [0, 1], `count` values. */
export function heardCourse(
  envelope: (seconds: number) => number,
  layer: Layer,
  times: ResolvedTimes,
  count: number,
): number[] {
  const [start, end] = [times.timeOf(layer.start), times.timeOf(layer.end)];
  return Array.from({ length: count }, (_, i) => envelope(start + ((end - start) * i) / (count - 1)));
}
