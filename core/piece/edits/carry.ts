import { applyMatrix } from '../../geometry';
import type { Matrix } from '../../geometry';
import { evaluateTrack, prepareTrack } from '../../motion';
import type { Track, TrackValue, Vector } from '../../motion';
import type { Seconds } from '../../time';
import type { Layer } from '../document/layer-schema';
import { outerMatrix } from '../document/place';
import type { PlaceReader } from '../document/place';
import type { PropertyId } from '../document/properties';
import { clampValue } from '../document/properties';
import type { Format, Piece } from '../document/schema';
import { dropStandingTracks, ownTrack, trackOf } from '../document/tracks';
import type { ResolvedTimes } from '../times/resolve-times';

/** Keeping layers where they are while the groups around them change. */

/** Values of layers at a time, as their own tracks give them. */
export function readerAt(layer: Layer, seconds: Seconds, times: ResolvedTimes): PlaceReader {
  const value = (property: PropertyId): TrackValue => {
    const track = trackOf(layer, property);
    if (!track) throw new RangeError(`a ${layer.kind} layer has no ${property}`);
    return evaluateTrack(prepareTrack(track, times.timeOf), seconds);
  };
  // The schema binds each property to its kind of value.
  return { number: (property) => value(property) as number, vector: (property) => value(property) as Vector };
}

/** What the groups around a layer make of the pixels of the lead format at a time. */
export function outerAtTime(
  piece: Piece,
  layerId: string,
  lead: Format,
  seconds: Seconds,
  times: ResolvedTimes,
): Matrix {
  return outerMatrix(piece, layerId, lead, (group) => readerAt(group, seconds, times));
}

function changeTrack(layer: Layer, property: PropertyId, change: (value: TrackValue) => TrackValue): void {
  const track: Track = ownTrack(layer, property);
  track.value = clampValue(property, change(track.value));
  for (const key of track.keyframes) key.value = clampValue(property, change(key.value));
}

/**
 * Moves, turns and scales a layer (a draft) with all its keyframes as a matrix says that takes the frame's pixels to
 * where they belong. Of slant and of scaling by different factors along and across only the mean is kept: a layer has no
 * values for them.
 */
export function carry(layer: Layer, matrix: Matrix, lead: Format): void {
  const [a, b, c, d] = matrix;
  const size = Math.sqrt(Math.abs(a * d - b * c));
  const turn = (Math.atan2(b, a) * 180) / Math.PI;
  const centre = originOf(layer, lead);
  const linear: Matrix = [a, b, c, d, 0, 0];
  const round = (n: number): number => Math.round(n * 1e4) / 1e4;
  changeTrack(layer, 'position', (value) => {
    const [x, y] = value as Vector; // a track of vectors
    const [px, py] = applyMatrix(matrix, x + centre[0], y + centre[1]);
    return [round(px - centre[0]), round(py - centre[1])];
  });
  for (const key of layer.tracks.position?.keyframes ?? []) {
    if (key.tangentIn) key.tangentIn = applyMatrix(linear, ...key.tangentIn);
    if (key.tangentOut) key.tangentOut = applyMatrix(linear, ...key.tangentOut);
  }
  if (Math.abs(turn) > 1e-6) changeTrack(layer, 'rotation', (value) => round((value as number) + turn));
  if (Math.abs(size - 1) > 1e-6)
    changeTrack(layer, 'scale', (value) => [(value as Vector)[0] * size, (value as Vector)[1] * size]);
  dropStandingTracks(layer);
}

/** Where a layer's position is measured from, pixels of the lead format. */
function originOf(layer: Layer, lead: Format): Vector {
  const area = layer.kind === 'text' ? layer.content.area : null;
  return area
    ? [(area.x + area.width / 2) * lead.width, (area.y + area.height / 2) * lead.height]
    : [lead.width / 2, lead.height / 2];
}
