import { evaluateTrack, prepareTrack } from '../../motion';
import type { Moment, Seconds } from '../../time';
import { musicSpan } from './arrange';
import type { Music } from '../document/song-schema';
import { JOIN_SECONDS, fadeGain, songParts } from './song-parts';
import type { SongPart } from './song-parts';

/**
 * How the song sounds in the piece: its parts one after another, crossfaded at their joins, with its volume and its
 * fades. The desk plays it by these gains, the export mixes it sample by sample with the same ones.
 */

/** Samples of a song, one array a channel (one or two), beginning at `offset` seconds of the song. */
export interface SongSamples {
  readonly channels: readonly Float32Array[];
  readonly rate: number;
  readonly offset: Seconds;
}

/**
 * A part with the stretch in which it is heard: it begins half a join early and ends half a join late where it is
 * joined.
 */
export interface HeardPart extends SongPart {
  /** Seconds of the piece, [begin, end). */
  readonly begin: Seconds;
  readonly end: Seconds;
  readonly isFirst: boolean;
  readonly isLast: boolean;
  /** How alike the two sides of the join at its begin and at its end are, −1 to 1; 0 where there is no join. */
  readonly alikeBefore: number;
  readonly alikeAfter: number;
}

const HALF: Seconds = JOIN_SECONDS / 2;
/** Two sides that cancel each other would be raised without end. */
const LEAST_ALIKE = -0.5;

/**
 * Correlation of what is heard on both sides of a join, over its crossfade: 1 for the same sound (a repeated bar),
 * about 0 for unrelated ones.
 * @param at - seconds of the song where it leaves off. @param to - where it goes on.
 */
export function joinCorrelation(song: SongSamples, at: Seconds, to: Seconds): number {
  const n = Math.round(JOIN_SECONDS * song.rate);
  const a = Math.round((at - HALF - song.offset) * song.rate);
  const b = Math.round((to - HALF - song.offset) * song.rate);
  let [ab, aa, bb] = [0, 0, 0];
  for (let i = 0; i < n; i++) {
    let [x, y] = [0, 0];
    for (const channel of song.channels) {
      x += channel[a + i] ?? 0;
      y += channel[b + i] ?? 0;
    }
    ab += x * y;
    aa += x * x;
    bb += y * y;
  }
  return aa > 0 && bb > 0 ? Math.max(-1, Math.min(1, ab / Math.sqrt(aa * bb))) : 0;
}

/** @param song - null where its samples are not at hand: joins are then taken for unrelated sounds. */
export function heardParts(music: Music, songDuration: Seconds, song: SongSamples | null): HeardPart[] {
  const parts = songParts(music, songDuration);
  const alike = parts.slice(1).map((part, i) => (song ? joinCorrelation(song, parts[i]!.to, part.from) : 0));
  return parts.map((part, i) => {
    const [isFirst, isLast] = [i === 0, i === parts.length - 1];
    return {
      ...part,
      isFirst,
      isLast,
      begin: part.at - (isFirst ? 0 : Math.min(HALF, part.from)),
      end: part.at + part.to - part.from + (isLast ? 0 : HALF),
      alikeBefore: alike[i - 1] ?? 0,
      alikeAfter: alike[i] ?? 0,
    };
  });
}

/**
 * Level of a crossfade at `x` in [0, 1], for the sum of both sides to keep its power: sin(πx/2), divided by √(1 + 2ρ
 * sin cos), because sounds that are alike add up by more than their powers (var(aX + bY) = a² + b² + 2ρab for unit
 * variances).
 */
export function joinGain(x: number, alike: number): number {
  const t = Math.max(0, Math.min(1, x));
  return fadeGain('power', t) / Math.sqrt(1 + Math.max(LEAST_ALIKE, alike) * Math.sin(Math.PI * t));
}

/** Level of a part at a time of the piece by its joins alone; 1 away from them. */
export function partGain(part: HeardPart, seconds: Seconds): number {
  const rise = part.isFirst ? 1 : joinGain((seconds - part.begin) / JOIN_SECONDS, part.alikeBefore);
  const fall = part.isLast ? 1 : joinGain((part.end - seconds) / JOIN_SECONDS, part.alikeAfter);
  return rise * fall;
}

/** Where the music is last heard: a fade-out ends there, whether the song ends or the piece does. */
export const lastHeard = (music: Music, songDuration: Seconds, pieceEnd: Seconds): Seconds =>
  Math.min(musicSpan(music, songDuration).to, pieceEnd);

/**
 * Level of the music over the piece: its volume and its two fades.
 * @param finish - see {@link lastHeard}.
 * @param timeOf - seconds of the volume's keyframes.
 */
export function musicLevel(
  music: Music,
  finish: Seconds,
  timeOf: (moment: Moment) => Seconds,
): (seconds: Seconds) => number {
  const track = prepareTrack(music.volume, timeOf);
  const isSteady = track.times.length === 0;
  // A volume is a track of numbers.
  const volumeAt = (seconds: Seconds) => (isSteady ? track.value : evaluateTrack(track, seconds)) as number;
  return (seconds) => {
    const rise = music.fadeIn > 0 ? fadeGain(music.fadeInCurve, (seconds - music.start) / music.fadeIn) : 1;
    const fall = music.fadeOut > 0 ? fadeGain(music.fadeOutCurve, (finish - seconds) / music.fadeOut) : 1;
    return volumeAt(seconds) * rise * fall;
  };
}

/** The stretch of the song that is needed for a piece, seconds of the song; null if nothing of it is heard. */
export function neededOfSong(
  music: Music,
  songDuration: Seconds,
  pieceEnd: Seconds,
): { from: Seconds; to: Seconds } | null {
  let [from, to] = [Infinity, -Infinity];
  for (const part of heardParts(music, songDuration, null)) {
    const [begin, end] = [Math.max(0, part.begin), Math.min(pieceEnd, part.end)];
    if (end <= begin) continue;
    from = Math.min(from, part.from + begin - part.at - HALF);
    to = Math.max(to, part.from + end - part.at + HALF);
  }
  return to > from ? { from: Math.max(0, from), to: Math.min(songDuration, to) } : null;
}

/**
 * The sound of a piece, to the sample.
 * @param song - its samples; a song of one channel is heard at its full level on both sides.
 * @param frames - length of the result, samples a channel.
 * @param timeOf - seconds of the volume's keyframes.
 * @returns Left and right.
 */
export function mixSong(
  music: Music,
  songDuration: Seconds,
  song: SongSamples,
  frames: number,
  timeOf: (moment: Moment) => Seconds,
): [Float32Array, Float32Array] {
  const { rate, offset, channels } = song;
  const out: [Float32Array, Float32Array] = [new Float32Array(frames), new Float32Array(frames)];
  const [left, right = left] = channels;
  if (!left || !right) return out;
  const level = musicLevel(music, lastHeard(music, songDuration, frames / rate), timeOf);
  for (const part of heardParts(music, songDuration, song)) {
    const first = Math.max(0, Math.round(part.begin * rate));
    const last = Math.min(frames, Math.round(part.end * rate));
    // Whole samples: a part is moved as it is, never resampled.
    const shift = Math.round((part.from - part.at - offset) * rate);
    for (let n = first; n < last; n++) {
      const t = n / rate;
      const gain = partGain(part, t) * level(t);
      out[0][n]! += gain * (left[n + shift] ?? 0);
      out[1][n]! += gain * (right[n + shift] ?? 0);
    }
  }
  return out;
}
