import type { Seconds } from '../../time';
import type { FadeCurve, Music } from '../document/song-schema';

/**
 * The song as it is played: parts in a row, from the front trim over each cut to the end. At a join the part that ends
 * runs on and the one that begins starts early, by half the crossfade each, so that the beat keeps its place and the
 * power stays even.
 */
export interface SongPart {
  /** Seconds of the song, [from, to). The last part's `to` is infinite if the song's length isn't known here. */
  readonly from: Seconds;
  readonly to: Seconds;
  /** Seconds of the piece at which `from` is heard. */
  readonly at: Seconds;
}

/** Length of the crossfade at a join: long enough to hide the seam, shorter than the attack of a drum's neighbour. */
export const JOIN_SECONDS: Seconds = 0.03;

/** Parts that follow each other in the song without a gap are only split, not cut: nothing is to be heard of it. */
const SPLIT: Seconds = 1e-6;

/**
 * The parts as they are listed, split or cut. @param duration - of the song; parts beyond it are left out. Cuts that
 * would play backwards in a part are ignored.
 */
export function splitParts(music: Music, duration: Seconds = Infinity): SongPart[] {
  const end = Math.min(music.trimEnd ?? Infinity, duration);
  const parts: SongPart[] = [];
  let from = music.trimStart;
  let at = music.start;
  for (const cut of music.cuts) {
    if (cut.at <= from + JOIN_SECONDS || cut.at > end || cut.to < 0 || cut.to >= end) continue;
    parts.push({ from, to: cut.at, at });
    at += cut.at - from;
    from = cut.to;
  }
  if (end > from) parts.push({ from, to: end, at });
  return parts;
}

/** The parts as they sound: those that are only split are one. */
export function songParts(music: Music, duration: Seconds = Infinity): SongPart[] {
  const out: SongPart[] = [];
  for (const part of splitParts(music, duration)) {
    const last = out[out.length - 1];
    if (last && Math.abs(last.to - part.from) < SPLIT) out[out.length - 1] = { ...last, to: part.to };
    else out.push(part);
  }
  return out;
}

/** Length of the music in the piece. */
export function playedLength(music: Music, duration: Seconds): Seconds {
  return songParts(music, duration).reduce((sum, part) => sum + part.to - part.from, 0);
}

/**
 * Times of the piece at which a time of the song is heard in parts, ascending. Before the first part and after the last
 * the song is only silent, not gone: the lattice goes on there.
 */
export function heardTimes(parts: readonly SongPart[], songSeconds: Seconds): Seconds[] {
  const last = parts.length - 1;
  const out: Seconds[] = [];
  for (let i = 0; i <= last; i++) {
    const part = parts[i]!;
    if (songSeconds >= part.from && (songSeconds < part.to || i === last)) out.push(part.at + songSeconds - part.from);
  }
  const [first] = parts;
  return out.length === 0 && first && songSeconds < first.from ? [first.at + songSeconds - first.from] : out;
}

/** Time of the song that is heard in parts at a time of the piece. */
export function songTime(parts: readonly SongPart[], pieceSeconds: Seconds): Seconds {
  let part = parts[0];
  for (const p of parts) if (p.at <= pieceSeconds) part = p;
  return part ? part.from + pieceSeconds - part.at : pieceSeconds;
}

/** {@link heardTimes} of a song's music. */
export const songToPieceAll = (music: Music, songSeconds: Seconds): Seconds[] =>
  heardTimes(songParts(music), songSeconds);

/** Seconds of the song → seconds of the piece: where it is heard first, or the next join if it is cut out. */
export function songToPiece(music: Music, songSeconds: Seconds): Seconds {
  if (music.cuts.length === 0) return music.start + songSeconds - music.trimStart;
  const parts = songParts(music);
  const first = heardTimes(parts, songSeconds)[0];
  return first ?? (parts.find((part) => part.from > songSeconds) ?? parts[parts.length - 1])?.at ?? music.start;
}

/** Seconds of the piece → seconds of the song. */
export const pieceToSong = (music: Music, pieceSeconds: Seconds): Seconds => songTime(songParts(music), pieceSeconds);

/** Gain of a fade at `x` in [0, 1] of its length. */
export function fadeGain(curve: FadeCurve, x: number): number {
  const t = Math.max(0, Math.min(1, x));
  if (curve === 'power') return Math.sin((t * Math.PI) / 2);
  if (curve === 'soft') return (1 - Math.cos(t * Math.PI)) / 2;
  return t;
}
