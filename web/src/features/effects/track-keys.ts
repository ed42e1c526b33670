import type { Track, TrackValue } from '@core/motion';
import { evaluateTrack, prepareTrack } from '@core/motion';
import { worn } from '@core/piece';
import type { Moment, Seconds } from '@core/time';
import { keyHere, newKeyHere } from '../desk/commands';
import { playhead } from '../../platform/clock';
import { openDocument } from '../../store/desk-store';

/** Values of effects and masks at the playhead, and their keyframes there. */

/** A track in the wardrobe, where colours are mixed; one that stands keeps its role. */
function mixed(track: Track): Track {
  const wardrobe = openDocument()?.piece.wardrobe;
  return wardrobe && track.keyframes.length > 0 ? worn(track, wardrobe) : track;
}

type TimeOf = (moment: Moment) => Seconds;

export const valueAt = (track: Track | undefined, begins: TrackValue, timeOf: TimeOf, seconds: Seconds): TrackValue =>
  track ? evaluateTrack(prepareTrack(mixed(track), timeOf), seconds) : begins;

/** A track with another value: at the playhead where it has keyframes, else standing. */
export function withValue(track: Track | undefined, value: TrackValue): Track {
  if (!track || track.keyframes.length === 0) return { value, keyframes: [] };
  const here = keyHere(track);
  const keyframes = here
    ? track.keyframes.map((key) => (key.id === here.id ? { ...key, value } : key))
    : [...track.keyframes, newKeyHere(value)];
  return { ...track, keyframes };
}

/** A track with a keyframe at the playhead, or without the one that was there. */
export function withKeyToggled(track: Track | undefined, begins: TrackValue): Track | null {
  const o = openDocument();
  if (!o) return null;
  const here = track && keyHere(track);
  const value = valueAt(track, begins, o.times.timeOf, playhead.seconds);
  if (track && here) {
    const keyframes = track.keyframes.filter((key) => key.id !== here.id);
    return { value: keyframes.length === 0 ? value : track.value, keyframes };
  }
  return { value: track?.value ?? begins, keyframes: [...(track?.keyframes ?? []), newKeyHere(value)] };
}
