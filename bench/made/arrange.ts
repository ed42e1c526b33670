import { medianTempo } from '@core/audio';
import { createRandom } from '../../demo/synth';
import { DRUMS } from './notes';
import type { Drum, MadeSong, Note, Part } from './notes';
import type { Style } from './styles';

const MAJOR = [0, 2, 4, 5, 7, 9, 11, 12] as const;
const MINOR = [0, 2, 3, 5, 7, 8, 10, 12] as const;
const PROGRESSIONS = [
  [0, 4, 5, 3],
  [0, 5, 3, 4],
  [0, 3, 4, 3],
  [0, 6, 5, 6],
  [0, 0, 3, 4],
] as const;
const BASS_PROGRAMS = [32, 33, 34, 36, 38, 39] as const;
const CHORD_PROGRAMS = [0, 4, 5, 16, 19, 24, 25, 27, 48, 50, 80, 89] as const;
const MELODY_PROGRAMS = [0, 11, 12, 21, 26, 40, 56, 65, 73, 80, 81, 104] as const;
const VELOCITY: Readonly<Record<string, number>> = { o: 45, x: 84, X: 112 };

/** How a bar of a song is played; a style alone says how a full one is. */
export interface BarPlan {
  readonly beatsPerBar: number;
  readonly silent: ReadonlySet<Part>;
  /** Only these drums are played; all without it. */
  readonly drums?: readonly Drum[];
}

export interface Arrangement {
  readonly name: string;
  readonly style: Style;
  readonly seed: number;
  /** Seconds of the first beat. */
  readonly lead: number;
  readonly bars: readonly BarPlan[];
  readonly bpmAt: (beat: number, seconds: number) => number;
  /** Seconds by which notes are scattered (deviation). */
  readonly jitter: number;
  /** Rests put in before a bar, in beats, by the number of the bar. */
  readonly rests?: ReadonlyMap<number, number>;
  /** Nothing of the bars' first notes until this many beats have gone by. */
  readonly from?: number;
}

export const hashOf = (text: string): number =>
  [...text].reduce((h, c) => Math.imul(h ^ c.charCodeAt(0), 16777619), 2166136261) >>> 0;

/** Plays a style bar by bar. The beats are those of its bars, played or not. */
export function arrange(a: Arrangement): MadeSong {
  const { style } = a;
  const random = createRandom(a.seed);
  const choose = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const scale = choose([MAJOR, MINOR]);
  const key = 45 + Math.floor(random() * 12);
  const progression = choose(PROGRESSIONS);
  const drums = Object.entries(style.drums ?? {}).map(([drum, patterns]) => [drum as Drum, choose(patterns)] as const);
  const bass = style.bass && choose(style.bass);
  const chords = style.chords && choose(style.chords);
  const barSteps = style.beatsPerBar * style.steps;
  // A motif of two bars is played again and again, now and then changed.
  const motif = Array.from({ length: 2 * barSteps }, (_, s) =>
    random() < ((style.melody ?? 0) / style.steps) * (s % style.steps === 0 ? 1.5 : s % 2 === 0 ? 1 : 0.5)
      ? Math.floor(random() * 8)
      : null,
  );
  const scatter = () => a.jitter * (random() + random() + random() - 1.5) * 2;
  const notes: Note[] = [];
  const beats: number[] = [];
  const downbeats: number[] = [];
  let t = a.lead;
  let beat = 0;
  a.bars.forEach((bar, index) => {
    t += ((a.rests?.get(index) ?? 0) * 60) / a.bpmAt(beat, t);
    const times: number[] = [];
    for (let b = 0; b <= bar.beatsPerBar; b++) {
      times.push(t);
      if (b < bar.beatsPerBar) t += 60 / a.bpmAt(beat + b, t);
    }
    const steps = bar.beatsPerBar * style.steps;
    const swing = style.swing ?? 0.5;
    const timeOf = (step: number): number => {
      const at = Math.min(step, steps) / style.steps;
      const b = Math.min(bar.beatsPerBar - 1, Math.floor(at));
      let within = at - b;
      if (swing !== 0.5 && step % 2 === 1) within += ((swing - 0.5) * 2) / style.steps;
      return times[b]! + within * (times[b + 1]! - times[b]!);
    };
    const add = (part: Part, step: number, until: number, pitch: number, velocity: number) => {
      if (bar.silent.has(part) || beat + step / style.steps < (a.from ?? 0)) return;
      const at = timeOf(step) + scatter();
      notes.push({
        at: Math.max(0, at),
        length: Math.max(0.05, (timeOf(until) - timeOf(step)) * 0.92),
        pitch,
        velocity: Math.max(1, Math.min(127, Math.round(velocity * (0.88 + 0.24 * random())))),
        part,
      });
    };
    const isFill = index % 8 === 7 && random() < 0.7;
    const place = Math.floor(index / Math.max(1, style.barsPerChord ?? 1));
    const degreeAt = (step: number) =>
      progression[(style.barsPerChord ?? 1) < 1 ? (2 * index + Math.floor((2 * step) / steps)) % 4 : place % 4]!;
    const pitchOf = (degree: number) => key + scale[degree % 7]! + 12 * Math.floor(degree / 7);
    for (let step = 0; step < steps; step++) {
      const s = step % barSteps;
      for (const [drum, pattern] of drums) {
        const mark = pattern[s]!;
        if (mark !== '.' && (!bar.drums || bar.drums.includes(drum)))
          add('drums', step, step + 1, DRUMS[drum], VELOCITY[mark] ?? 84);
      }
      if (isFill && bar.silent.size === 0 && style.drums && step >= steps - 2 * style.steps && random() < 0.6)
        add('drums', step, step + 1, choose([DRUMS.snare, DRUMS.tom]), 80);
      const degree = degreeAt(step);
      const rest = (pattern: string) => {
        let end = step + 1;
        while (end < steps && pattern[end % barSteps] === '.') end++;
        return end;
      };
      const low = bass?.[s] ?? '.';
      if (low !== '.')
        add('bass', step, Math.min(rest(bass!), step + 2 * style.steps), pitchOf(degree + Number(low) - 1) - 12, 92);
      const high = chords?.[s] ?? '.';
      if (high !== '.') {
        const until = high === '-' ? rest(chords!) : step + 1;
        for (const third of [0, 2, 4]) add('chords', step, until, pitchOf(degree + third) + 12, step === 0 ? 76 : 68);
      }
      const tone = motif[(index % 2) * barSteps + s] ?? null;
      if (tone !== null && random() < 0.92)
        add(
          'melody',
          step,
          step + Math.max(1, Math.floor(style.steps / 2)),
          pitchOf(degree + (random() < 0.8 ? tone : Math.floor(random() * 8))) + 12,
          80,
        );
    }
    if (index % 8 === 0 && index > 0 && style.drums && bar.silent.size === 0 && random() < 0.6)
      add('drums', 0, 2, DRUMS.crash, 96);
    downbeats.push(times[0]!);
    beats.push(...times.slice(0, -1));
    beat += bar.beatsPerBar;
  });
  const last = notes.reduce((end, n) => Math.max(end, n.at), 0);
  const heard = (list: number[]) => list.filter((x) => x <= last + 0.01);
  return {
    name: a.name,
    family: style.family,
    bpm: medianTempo(beats),
    length: last + 2,
    beats: heard(beats),
    downbeats: heard(downbeats),
    notes,
    programs: { bass: choose(BASS_PROGRAMS), chords: choose(CHORD_PROGRAMS), melody: choose(MELODY_PROGRAMS) },
  };
}

/** Bars of a style that fill so many seconds. */
export const barsIn = (seconds: number, bpm: number, { beatsPerBar }: Style): number =>
  Math.round((seconds * bpm) / 60 / beatsPerBar);

/** Parts come in and go away as in songs: an entrance, full bars, a break, full bars. */
export function plainBars(style: Style, count: number, random: () => number): BarPlan[] {
  const none = new Set<Part>();
  const entrance: ReadonlySet<Part>[] = [
    new Set(['drums']),
    new Set(['bass', 'melody']),
    new Set(['melody']),
    none,
    none,
  ];
  const opening = entrance[Math.floor(random() * entrance.length)]!;
  const gap: ReadonlySet<Part>[] = [
    new Set(['drums']),
    new Set(['drums', 'bass']),
    new Set(['melody', 'chords']),
    none,
    none,
  ];
  const dropped = gap[Math.floor(random() * gap.length)]!;
  const opens = Math.min(8, Math.floor(count / 4));
  const [from, to] = [Math.floor(count * 0.55), Math.floor(count * 0.55) + Math.min(4, Math.floor(count / 6))];
  const sounding = (silent: ReadonlySet<Part>): ReadonlySet<Part> => {
    const parts: Part[] = [];
    if (style.drums) parts.push('drums');
    if (style.bass) parts.push('bass');
    if (style.chords) parts.push('chords');
    return parts.every((p) => silent.has(p)) ? none : silent;
  };
  return Array.from({ length: count }, (_, i) => ({
    beatsPerBar: style.beatsPerBar,
    silent: sounding(i < opens ? opening : i >= from && i < to ? dropped : none),
  }));
}

/** The song of a style at a tempo. */
export function styleSong(style: Style, bpm: number, take: number): MadeSong {
  const name = `${style.name} at ${bpm}${take > 0 ? ` take ${take + 1}` : ''}`;
  const seed = hashOf(name);
  const random = createRandom(seed);
  const exact = bpm * (1 + 0.03 * (random() * 2 - 1));
  const count = Math.max(8, barsIn(45, exact, style));
  const drift = random() < 0.2 ? 0.02 : 0;
  const lead = 0.1 + random();
  return arrange({
    name,
    style,
    seed,
    lead,
    bars: plainBars(style, count, random),
    bpmAt: (_, t) => exact * (1 + drift * Math.sin(t / 4)),
    jitter: [0, 0.003, 0.008][Math.floor(random() * 3)]!,
  });
}
