import type { Keyframe, Track, TrackValue } from '@core/motion';
import { evaluateTrack, prepareTrack } from '@core/motion';
import type { Moment, Seconds } from '@core/time';
import { momentAtPlayhead } from '../desk/commands';
import { playhead } from '../../platform/clock';
import { newId } from '../../platform/ids';
import { openDocument } from '../../store/desk-store';

/** Values of effects and masks at the playhead, and their keyframes there. */

type TimeOf = (moment: Moment) => Seconds;

export const valueAt = (track: Track | undefined, begins: TrackValue, timeOf: TimeOf, seconds: Seconds): TrackValue =>
  track ? evaluateTrack(prepareTrack(track, timeOf), seconds) : begins;

/** The keyframe that stands at a time, within half a frame. */
export function keyAt(track: Track | undefined, seconds: Seconds): Keyframe | undefined {
  const o = openDocument();
  if (!o || !track) return undefined;
  const halfFrame = o.piece.frameRate.den / o.piece.frameRate.num / 2;
  return track.keyframes.find((key) => Math.abs(o.times.timeOf(key.at) - seconds) < halfFrame);
}

const newKey = (value: TrackValue): Keyframe => ({
  id: newId(),
  at: momentAtPlayhead(),
  value,
  easing: { type: 'named', name: 'ease-in-out' },
});

/** A track with another value: at the playhead where it has keyframes, else standing. */
export function withValue(track: Track | undefined, value: TrackValue): Track {
  if (!track || track.keyframes.length === 0) return { value, keyframes: [] };
  const here = keyAt(track, playhead.seconds);
  const keyframes = here
    ? track.keyframes.map((key) => (key.id === here.id ? { ...key, value } : key))
    : [...track.keyframes, newKey(value)];
  return { ...track, keyframes };
}

/** A track with a keyframe at the playhead, or without the one that was there. */
export function withKeyToggled(track: Track | undefined, begins: TrackValue): Track | null {
  const o = openDocument();
  if (!o) return null;
  const here = keyAt(track, playhead.seconds);
  const value = valueAt(track, begins, o.times.timeOf, playhead.seconds);
  if (track && here) {
    const keyframes = track.keyframes.filter((key) => key.id !== here.id);
    return { value: keyframes.length === 0 ? value : track.value, keyframes };
  }
  return { value: track?.value ?? begins, keyframes: [...(track?.keyframes ?? []), newKey(value)] };
}
