import type { Section, SongAnalysis } from './analysis';
import type { BeatSound } from './beat-energy';
import { PROFILE_SIZE } from './pitch-profile';
import type { Seconds } from '../time';

/**
 * Parts of a song by novelty in its self-similarity, aligned to bars, and what happens at their borders.
 * @see J. Foote, "Automatic Audio Segmentation Using a Measure of Audio Novelty", ICME 2000
 */

interface Bar {
  readonly beat: number;
  readonly beatsPerBar: number;
}

/** Bars to each side that the kernel compares, and the fewest bars of a part. */
const KERNEL_BARS = 4;
const FEWEST_BARS = 4;
/** A border's novelty stands this many deviations above the mean. */
const NOVELTY_THRESHOLD = 0.6;
const EXTRA = 3;
export const BAR_ROW_SIZE = PROFILE_SIZE + EXTRA;
const SIZE = BAR_ROW_SIZE;

/** One row a bar: its pitches (unit length), loudness, bass and busyness as z-scores over the song. */
export function barRows(bars: readonly Bar[], sound: BeatSound): Float64Array {
  const rows = new Float64Array(bars.length * SIZE);
  const last = sound.power.length;
  bars.forEach((bar, k) => {
    const to = Math.min(last, bar.beat + bar.beatsPerBar);
    const n = Math.max(1, to - bar.beat);
    for (let b = bar.beat; b < to; b++) {
      for (let p = 0; p < PROFILE_SIZE; p++) rows[k * SIZE + p]! += sound.profile[b * PROFILE_SIZE + p]!;
      rows[k * SIZE + PROFILE_SIZE]! += Math.log(sound.power[b]! + 1e-8) / n;
      rows[k * SIZE + PROFILE_SIZE + 1]! += Math.log(sound.bass[b]! + 1e-4) / n;
      rows[k * SIZE + PROFILE_SIZE + 2]! += Math.log(sound.busy[b]! + 1e-3) / n;
    }
    let norm = 0;
    for (let p = 0; p < PROFILE_SIZE; p++) norm += rows[k * SIZE + p]! ** 2;
    for (let p = 0; p < PROFILE_SIZE; p++) rows[k * SIZE + p]! /= Math.sqrt(norm) || 1;
  });
  for (let c = PROFILE_SIZE; c < SIZE; c++) {
    let [mean, square] = [0, 0];
    for (let k = 0; k < bars.length; k++) mean += rows[k * SIZE + c]! / bars.length;
    for (let k = 0; k < bars.length; k++) square += (rows[k * SIZE + c]! - mean) ** 2 / bars.length;
    // Music of one loudness must not be cut up by its ripple: deviations below a tenth of a neper count as a tenth.
    const deviation = Math.max(0.1, Math.sqrt(square));
    for (let k = 0; k < bars.length; k++) rows[k * SIZE + c] = (0.35 * (rows[k * SIZE + c]! - mean)) / deviation;
  }
  return rows;
}

/** Checkerboard novelty before each bar, 0 at the song's ends. */
function barNovelty(rows: Float64Array, count: number): Float64Array {
  const distance = (a: number, b: number) => {
    let sum = 0;
    for (let c = 0; c < SIZE; c++) sum += (rows[a * SIZE + c]! - rows[b * SIZE + c]!) ** 2;
    return Math.sqrt(sum);
  };
  const out = new Float64Array(count);
  for (let k = 2; k + 1 < count; k++) {
    let [across, within, acrossWeight, withinWeight] = [0, 0, 0, 0];
    for (let i = -KERNEL_BARS; i < KERNEL_BARS; i++) {
      for (let j = -KERNEL_BARS; j < KERNEL_BARS; j++) {
        if (i >= j || k + i < 0 || k + j >= count) continue;
        const weight = Math.exp(-((i + 0.5) ** 2 + (j + 0.5) ** 2) / (KERNEL_BARS * KERNEL_BARS));
        if (i < 0 && j >= 0) {
          across += weight * distance(k + i, k + j);
          acrossWeight += weight;
        } else {
          within += weight * distance(k + i, k + j);
          withinWeight += weight;
        }
      }
    }
    out[k] = Math.max(0, across / (acrossWeight || 1) - within / (withinWeight || 1));
  }
  return out;
}

const meanOf = (values: ArrayLike<number>, from: number, to: number) => {
  let sum = 0;
  let n = 0;
  for (let i = Math.max(0, from); i < Math.min(values.length, to); i++) {
    sum += values[i]!;
    n++;
  }
  return n ? sum / n : 0;
};

/** Drops: downbeats after which loudness and bass stand well above the two bars before, and high in the song. */
function findDrops(
  bars: readonly Bar[],
  beats: readonly number[],
  sound: BeatSound,
  energy: readonly number[],
): SongAnalysis['drops'] {
  const sorted = [...energy].sort((a, b) => a - b);
  const high = sorted[Math.floor(sorted.length * 0.55)] ?? 1;
  const drops: { time: Seconds; strength: number; bar: number }[] = [];
  bars.forEach((bar, k) => {
    if (k < 2) return;
    const length = bar.beatsPerBar;
    // The gap before a drop may be a single beat: the quieter of the last beat and the last two bars counts.
    const before = (values: ArrayLike<number>) =>
      Math.min(meanOf(values, bar.beat - 2 * length, bar.beat), meanOf(values, bar.beat - 1, bar.beat) * 2);
    const after = (values: ArrayLike<number>) => meanOf(values, bar.beat, bar.beat + 2 * length);
    if (after(energy) < high) return;
    const louder = Math.log2((after(sound.power) + 1e-8) / (before(sound.power) + 1e-8));
    const deeper = Math.log2((after(sound.bass) + 1e-4) / (before(sound.bass) + 1e-4));
    const strength = Math.min(1, (Math.max(0, louder) + 1.5 * Math.max(0, deeper)) / 8);
    if (strength >= 0.2) drops.push({ time: beats[bar.beat]!, strength: Math.round(strength * 100) / 100, bar: k });
  });
  const kept = drops.filter(
    (d) =>
      !drops.some(
        (o) =>
          o !== d &&
          Math.abs(o.bar - d.bar) < FEWEST_BARS &&
          (o.strength > d.strength || (o.strength === d.strength && o.bar < d.bar)),
      ),
  );
  return kept
    .sort((a, b) => b.strength - a.strength || a.time - b.time)
    .slice(0, 8)
    .map(({ time, strength }) => ({ time, strength }));
}

/** A fill: the last bar of a part is busier than the three before it. */
function findFills(
  borders: readonly number[],
  bars: readonly Bar[],
  beats: readonly number[],
  sound: BeatSound,
): SongAnalysis['fills'] {
  return borders.flatMap((k) => {
    const bar = bars[k - 1];
    const next = bars[k];
    const first = bars[Math.max(0, k - 4)];
    if (!bar || !next || !first || k < 3) return [];
    const half = bar.beat + Math.floor(bar.beatsPerBar / 2);
    const usual = meanOf(sound.busy, first.beat, bar.beat);
    return meanOf(sound.busy, half, next.beat) > 1.35 * usual ? [{ start: beats[half]!, end: beats[next.beat]! }] : [];
  });
}

export interface SongForm {
  readonly sections: SongAnalysis['sections'];
  readonly drops: SongAnalysis['drops'];
  readonly fills: SongAnalysis['fills'];
}

/** @param duration - of the song, seconds: the last part ends there. */
export function songForm(
  bars: readonly Bar[],
  beats: readonly number[],
  sound: BeatSound,
  energy: readonly number[],
  duration: Seconds,
): SongForm {
  if (bars.length < 2 * FEWEST_BARS) return { sections: [], drops: [], fills: [] };
  const drops = findDrops(bars, beats, sound, energy);
  const novelty = barNovelty(barRows(bars, sound), bars.length);
  const mean = meanOf(novelty, 0, novelty.length);
  const deviation = Math.sqrt(novelty.reduce((a, v) => a + (v - mean) ** 2, 0) / novelty.length);
  const ranked = Array.from(novelty.keys())
    .filter((k) => novelty[k]! > mean + NOVELTY_THRESHOLD * deviation && novelty[k]! > 0.02)
    .sort((a, b) => novelty[b]! - novelty[a]!);
  const dropBars = drops.filter((d) => d.strength >= 0.35).map((d) => bars.findIndex((b) => beats[b.beat] === d.time));
  const borders: number[] = [];
  for (const k of [...dropBars, ...ranked])
    if (k >= 2 && k <= bars.length - 2 && borders.every((b) => Math.abs(b - k) >= FEWEST_BARS)) borders.push(k);
  borders.sort((a, b) => a - b);
  const starts = [0, ...borders];
  const energies = starts.map((k, i) =>
    meanOf(energy, bars[k]!.beat, starts[i + 1] === undefined ? energy.length : bars[starts[i + 1]!]!.beat),
  );
  const typical = [...energies].sort((a, b) => a - b)[energies.length >> 1]!;
  const isDrop = (k: number) => dropBars.includes(k);
  const sections = starts.map((k, i): Section => {
    const e = energies[i]!;
    const isLast = i === starts.length - 1;
    const nextIsDrop = !isLast && isDrop(starts[i + 1]!);
    const label = isDrop(k)
      ? 'drop'
      : i === 0 && starts.length > 1 && e <= typical
        ? 'intro'
        : isLast && starts.length > 1 && e <= typical
          ? 'outro'
          : nextIsDrop
            ? 'build'
            : e < typical - 0.12
              ? 'break'
              : 'main';
    return {
      start: i === 0 ? 0 : beats[bars[k]!.beat]!,
      end: isLast ? duration : beats[bars[starts[i + 1]!]!.beat]!,
      label,
      energy: Math.round(e * 1000) / 1000,
    };
  });
  return { sections, drops, fills: findFills(borders, bars, beats, sound) };
}
