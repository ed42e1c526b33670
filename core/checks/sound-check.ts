import type { SongAnalysis } from '../audio';
import { MAX_VOLUME, heardParts, lastHeard, musicEnd, musicLevel, partGain } from '../piece';
import type { Edit, Music } from '../piece';
import { freeMoment } from '../time';
import type { Seconds } from '../time';
import { finding } from './finding';
import type { CheckContext, Finding } from './finding';

/**
 * Whether the music is too loud for the file or too quiet for whoever listens, told from the waveform of its analysis and
 * from what the piece makes of it: parts, volume, fades.
 */

/** The waveform's peaks are rounded to a 255th of full scale: less than this above it is no clipping. */
const CLIPPED = 1.02;
/** LUFS. Places level to −14 to −16; what is below this is turned up there, noise and all, or not at all. */
const QUIET_LUFS = -26;
/** What a fix aims at, LUFS, as long as the peaks leave room. */
const WANTED_LUFS = -16;
/** Peaks stay below this after a fix, linear (−1 dB). */
const PEAK_ROOM = 10 ** (-1 / 20);

export interface HeardLevel {
  /** Greatest sample, linear; 1 is full scale. */
  readonly peak: number;
  /** Seconds of the piece at which it is. */
  readonly peakAt: Seconds;
  /** LUFS over what is heard; null where the song was not measured. */
  readonly loudness: number | null;
}

const decibels = (gain: number): number => 20 * Math.log10(gain);

/** Levels of the music as the piece plays it; null if nothing of it is heard. */
export function heardLevel(
  music: Music,
  analysis: SongAnalysis,
  end: Seconds,
  timeOf: Parameters<typeof musicLevel>[2],
): HeardLevel | null {
  const { peaks, rms, peakRate, duration, loudness } = analysis;
  if (peaks.length === 0 || peakRate <= 0) return null;
  const level = musicLevel(music, lastHeard(music, duration, end), timeOf);
  let [peak, peakAt, power, count] = [0, 0, 0, 0];
  for (const part of heardParts(music, duration, null)) {
    const first = Math.max(0, Math.floor((part.from + Math.max(0, part.begin) - part.at) * peakRate));
    const last = Math.min(peaks.length, Math.ceil((part.from + Math.min(end, part.end) - part.at) * peakRate));
    for (let i = first; i < last; i++) {
      const at = part.at + (i + 0.5) / peakRate - part.from;
      const gain = partGain(part, at) * level(at);
      const sample = (gain * peaks[i]!) / 255;
      if (sample > peak) [peak, peakAt] = [sample, at];
      power += ((gain * (rms[i] ?? 0)) / 255) ** 2;
      count++;
    }
  }
  if (count === 0) return null;
  // The song's loudness is measured; what is heard of it is that much louder or quieter as its power is.
  const whole = rms.reduce((sum, value) => sum + (value / 255) ** 2, 0) / Math.max(1, rms.length);
  const heard = power / count;
  return {
    peak,
    peakAt,
    loudness: loudness && whole > 0 && heard > 0 ? loudness.integrated + 10 * Math.log10(heard / whole) : null,
  };
}

/** The same course of the volume, so many times as loud. */
function louder(music: Music, factor: number): Edit[] {
  const scaled = (value: number): number => Math.min(MAX_VOLUME, value * factor);
  const { value, keyframes } = music.volume;
  const volume = {
    value: scaled(value as number), // a track of numbers
    keyframes: keyframes.map((key) => ({ ...key, value: scaled(key.value as number) })),
  };
  return [{ type: 'music.set', music: { ...music, volume } }];
}

/** Shorter than this nobody wonders. */
const SHORTEST_SILENCE: Seconds = 1;

/** Silence between the end of the music and that of the piece. */
function silenceAtEnd(piece: CheckContext['piece'], analysis: SongAnalysis, end: Seconds): Finding[] {
  const last = musicEnd(piece, analysis);
  if (last === null || last <= 0 || end - last < SHORTEST_SILENCE) return [];
  return [
    finding('warning', `The last ${(end - last).toFixed(1)} s are silent: the music ends before the piece.`, {
      at: last,
      fixes: [{ label: 'End piece with music', edits: [{ type: 'piece.setEnd', end: freeMoment(last) }] }],
    }),
  ];
}

/** Music over full scale, or far quieter than other people's. */
function levelsOf(music: Music, { peak, peakAt, loudness }: HeardLevel): Finding[] {
  if (peak > CLIPPED)
    return [
      finding('error', `The music clips: ${decibels(peak).toFixed(1)} dB over full scale.`, {
        at: peakAt,
        fixes: [{ label: 'Lower volume', edits: louder(music, PEAK_ROOM / peak) }],
      }),
    ];
  if (loudness === null || loudness > QUIET_LUFS) return [];
  const room = peak > 0 ? PEAK_ROOM / peak : 1;
  const factor = Math.min(room, 10 ** ((WANTED_LUFS - loudness) / 20));
  return [
    finding('warning', `The music is quiet: about ${loudness.toFixed(0)} LUFS. Usual is −14 to −16.`, {
      at: 0,
      fixes: factor > 1.05 ? [{ label: 'Raise volume', edits: louder(music, factor) }] : [],
    }),
  ];
}

/** Music at a wrong level, or over before the piece is. */
export function soundLevels({ piece, times, analysis }: CheckContext): Finding[] {
  if (!piece.music || !analysis) return [];
  const heard = heardLevel(piece.music, analysis, times.end, times.timeOf);
  return heard ? [...levelsOf(piece.music, heard), ...silenceAtEnd(piece, analysis, times.end)] : [];
}
