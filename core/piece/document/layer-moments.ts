import type { Track } from '../../motion';
import type { Moment } from '../../time';
import type { Layer } from './layer-schema';

/** Every track a layer holds: its own, those of its effects and masks, and those of formats that differ. */
export function visitLayerTracks(layer: Layer, visit: (track: Track, name: string) => void): void {
  const all = (tracks: Readonly<Record<string, Track | undefined>> | undefined, name: string) => {
    for (const [id, track] of Object.entries(tracks ?? {})) if (track) visit(track, name + id);
  };
  all(layer.tracks, '');
  for (const { tracks, parts } of Object.values(layer.overrides)) {
    all(tracks, '');
    all(parts, '');
  }
  for (const effect of layer.effects) all(effect.parameters, `${effect.kind} `);
  for (const mask of layer.masks) all(mask.tracks, `${mask.name} `);
}

/** Calls `visit` on every moment of a track; a returned moment replaces it. */
export function visitTrackMoments(track: Track, visit: (moment: Moment) => Moment | void): void {
  for (const key of track.keyframes) {
    const next = visit(key.at);
    if (next) key.at = next;
  }
}

/**
 * Calls `visit` on every moment inside a layer (its span is not among them); a returned moment replaces it. Give it a
 * draft to change a layer.
 */
export function visitLayerMoments(layer: Layer, visit: (moment: Moment, where: string) => Moment | void): void {
  visitLayerTracks(layer, (track, name) => visitTrackMoments(track, (moment) => visit(moment, `${name} keyframe`)));
  for (const use of layer.gestures) {
    const next = use.at && visit(use.at, `${use.gesture} gesture`);
    if (next) use.at = next;
  }
}
