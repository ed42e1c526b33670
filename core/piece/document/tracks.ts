import type { Track, TrackValue } from '../../motion';
import { LAYER_KINDS } from './layer-kinds';
import type { LayerKind } from './layer-kinds';
import type { PropertyId } from './properties';
import type { Layer } from './layer-schema';

/**
 * A layer holds tracks only where they differ from what its kind begins with. Reading goes through {@link trackOf},
 * which gives the kind's standing value for the rest; writing through {@link ownTrack}.
 */
const standing = new Map<LayerKind, Partial<Record<PropertyId, Track>>>();

function standingTracks(kind: LayerKind): Partial<Record<PropertyId, Track>> {
  let tracks = standing.get(kind);
  if (!tracks) {
    const entries = Object.entries(LAYER_KINDS[kind].properties) as [PropertyId, unknown][]; // keys of the table
    const frozen = (value: unknown): TrackValue =>
      (Array.isArray(value) ? Object.freeze([...value]) : value) as TrackValue; // values of the table
    tracks = Object.fromEntries(
      entries.map(([property, value]) => [
        property,
        Object.freeze({ value: frozen(value), keyframes: Object.freeze([]) }),
      ]),
    ) as unknown as Partial<Record<PropertyId, Track>>; // frozen: nobody writes to them
    standing.set(kind, tracks);
  }
  return tracks;
}

export const hasProperty = (kind: LayerKind, property: PropertyId): boolean =>
  Object.hasOwn(LAYER_KINDS[kind].properties, property);

/** The track of a property, not to be written to; undefined if the kind of the layer has no such property. */
export function trackOf(layer: Pick<Layer, 'kind' | 'tracks'>, property: PropertyId): Track | undefined {
  return layer.tracks[property] ?? standingTracks(layer.kind)[property];
}

/**
 * The track of a property in a draft, made if the layer has none of its own yet.
 * @throws RangeError if the kind of the layer has no such property.
 */
export function ownTrack(layer: Pick<Layer, 'kind' | 'tracks'>, property: PropertyId): Track {
  const own = layer.tracks[property];
  if (own) return own;
  const { value } = standingTracks(layer.kind)[property] ?? {};
  if (value === undefined) throw new RangeError(`a ${layer.kind} layer has no ${property}`);
  return (layer.tracks[property] = { value: Array.isArray(value) ? [value[0], value[1]] : value, keyframes: [] });
}

const isSame = (a: TrackValue, b: TrackValue | undefined): boolean =>
  Array.isArray(a) ? Array.isArray(b) && a[0] === b[0] && a[1] === b[1] : a === b;

/** Takes tracks away that say no more than the kind does, in a draft or a document of one's own making. */
export function dropStandingTracks(layer: Pick<Layer, 'kind' | 'tracks'>): void {
  const begins = standingTracks(layer.kind);
  for (const property of Object.keys(layer.tracks) as PropertyId[]) {
    const track = layer.tracks[property];
    if (track && track.keyframes.length === 0 && isSame(track.value, begins[property]?.value))
      delete layer.tracks[property];
  }
}

/** Every property of the layer's kind with its track, in the order of the kind's table. */
export function allTracks(layer: Pick<Layer, 'kind' | 'tracks'>): [PropertyId, Track][] {
  return (Object.entries(standingTracks(layer.kind)) as [PropertyId, Track][]).map(([property, begins]) => [
    property,
    layer.tracks[property] ?? begins,
  ]);
}
