import { bass, createMix, createRandom, hat, kick, midi, pad, play, pluck, snare, toWav } from './synth';

/** A song of the demo with the truth about its beats, which the tests measure the analysis against. */
export interface DemoSong {
  readonly id: string;
  readonly title: string;
  readonly bpm: number;
  readonly beatsPerBar: number;
  /** Seconds of every beat; the first is a downbeat. */
  readonly beats: readonly number[];
  readonly wav: Buffer;
}

interface Plan {
  readonly id: string;
  readonly title: string;
  readonly bpm: number;
  readonly beatsPerBar: number;
  readonly bars: number;
  readonly leadIn: number;
  readonly tail: number;
}

const beatsOf = (plan: Plan): number[] =>
  Array.from({ length: plan.bars * plan.beatsPerBar }, (_, i) => plan.leadIn + (i * 60) / plan.bpm);

/** Bright and driving: four bars of lift, eight of drop, a bar of gap before it, a tail. For titles. */
export function saltAndString(): DemoSong {
  const plan: Plan = {
    id: 'salt-and-string',
    title: 'Salt and String',
    bpm: 118,
    beatsPerBar: 4,
    bars: 16,
    leadIn: 0.2,
    tail: 2.2,
  };
  const random = createRandom(118);
  const beats = beatsOf(plan);
  const step = 60 / plan.bpm;
  const mix = createMix(plan.leadIn + beats.length * step + plan.tail);
  const chords = [
    [57, 64, 69, 72],
    [53, 60, 65, 69],
    [48, 60, 64, 67],
    [55, 62, 67, 71],
  ];
  for (let bar = 0; bar < plan.bars; bar++) {
    const chord = chords[bar % 4]!;
    const at = beats[bar * 4]!;
    const isLift = bar < 4;
    const isTail = bar >= 14;
    for (const note of chord)
      play(mix, at, step * 4, isLift ? 0.05 : 0.035, (note % 5) / 5 - 0.4, pad(midi(note), step * 4, 0.12));
    for (let i = 0; i < 8; i++) {
      const note = chord[[0, 2, 3, 1, 2, 3, 1, 2][i]!]! + (i % 3 === 2 ? 12 : 0);
      if (!(bar === 3 && i >= 6))
        play(mix, at + (i * step) / 2, 0.9, i % 2 ? 0.13 : 0.2, Math.sin(i * 2.1) * 0.5, pluck(midi(note), random));
    }
    for (let beat = 0; beat < 4; beat++) {
      const t = at + beat * step;
      const gap = bar === 3 && beat >= 2;
      if (!gap && (!isLift || beat % 2 === 0)) play(mix, t, 0.4, isLift ? 0.5 : 0.8, 0, kick());
      if (!isLift && !isTail && beat % 2 === 1) play(mix, t, 0.3, 0.42, 0.05, snare(random));
      if (!isTail && !gap) play(mix, t + step / 2, 0.12, isLift ? 0.08 : 0.16, 0.3, hat(random, 46));
      if (!isLift && !isTail) for (const q of [0.25, 0.75]) play(mix, t + step * q, 0.06, 0.06, -0.3, hat(random, 80));
    }
    if (!isLift)
      for (const [beat, jump] of [
        [0, 0],
        [0.75, 0],
        [1.5, 12],
        [2.5, 7],
        [3.25, 0],
      ] as const)
        if (!isTail || beat === 0) play(mix, at + beat * step, step * 0.9, 0.42, 0, bass(midi(chord[0]! - 24 + jump)));
    if (bar === 3)
      for (let i = 0; i < 8; i++) play(mix, at + step * (2 + i / 4), 0.2, 0.08 + i * 0.045, 0, snare(random));
  }
  play(mix, beats[beats.length - 1]! + step, plan.tail, 0.5, 0, bass(midi(33)));
  return { ...plan, beats, wav: toWav(mix) };
}

/** Slow and warm, brushes and chords, room to read. For quotes. */
function harbourLamps(): DemoSong {
  const plan: Plan = {
    id: 'harbour-lamps',
    title: 'Harbour Lamps',
    bpm: 84,
    beatsPerBar: 4,
    bars: 9,
    leadIn: 0.35,
    tail: 2.5,
  };
  const random = createRandom(84);
  const beats = beatsOf(plan);
  const step = 60 / plan.bpm;
  const mix = createMix(plan.leadIn + beats.length * step + plan.tail);
  const chords = [
    [50, 57, 60, 65],
    [46, 53, 57, 62],
    [53, 57, 60, 64],
    [48, 55, 58, 64],
  ];
  for (let bar = 0; bar < plan.bars; bar++) {
    const chord = chords[bar % 4]!;
    const at = beats[bar * 4]!;
    for (const note of chord) play(mix, at, step * 4, 0.07, (note % 7) / 7 - 0.5, pad(midi(note), step * 4, 0.05));
    for (const [beat, index] of [
      [0, 3],
      [1, 1],
      [1.667, 2],
      [2, 3],
      [3, 2],
      [3.667, 1],
    ] as const)
      play(mix, at + beat * step, 1.4, 0.17, index / 3 - 0.5, pluck(midi(chord[index]! + 12), random, 0.998));
    play(mix, at, step * 2, 0.4, 0, bass(midi(chord[0]! - 12)));
    play(mix, at + 2 * step, step * 1.8, 0.34, 0, bass(midi(chord[0]! - 5)));
    for (let beat = 0; beat < 4; beat++) {
      const t = at + beat * step;
      if (beat % 2 === 0) play(mix, t, 0.4, 0.45, 0, kick());
      else play(mix, t, 0.3, 0.15, 0.1, snare(random));
      play(mix, t, 0.1, 0.06, -0.3, hat(random, 60));
      play(mix, t + step * 0.667, 0.1, 0.05, -0.3, hat(random, 60)); // swung off-beat
    }
  }
  return { ...plan, beats, wav: toWav(mix) };
}

/** A quick waltz of plucked strings. For cards and rolls. */
function paperWaltz(): DemoSong {
  const plan: Plan = {
    id: 'paper-waltz',
    title: 'Paper Waltz',
    bpm: 150,
    beatsPerBar: 3,
    bars: 24,
    leadIn: 0.15,
    tail: 1.8,
  };
  const random = createRandom(150);
  const beats = beatsOf(plan);
  const step = 60 / plan.bpm;
  const mix = createMix(plan.leadIn + beats.length * step + plan.tail);
  const chords = [
    [48, 64, 67, 72],
    [45, 60, 64, 69],
    [53, 60, 65, 69],
    [55, 59, 62, 67],
  ];
  for (let bar = 0; bar < plan.bars; bar++) {
    const chord = chords[Math.floor(bar / 2) % 4]!;
    const at = beats[bar * 3]!;
    play(mix, at, step * 1.6, 0.5, 0, bass(midi(chord[0]! - (bar % 2 ? 5 : 12))));
    play(mix, at, 0.4, 0.5, 0, kick());
    for (const beat of [1, 2]) {
      for (const note of chord.slice(1)) play(mix, at + beat * step, 0.5, 0.09, 0.3, pluck(midi(note), random, 0.99));
      play(mix, at + beat * step, 0.08, 0.08, -0.2, hat(random, 70));
    }
    for (let i = 0; i < 6; i++)
      if (bar >= 4)
        play(mix, at + (i * step) / 2, 0.8, 0.11, -0.4, pluck(midi(chord[1 + ((i * 2 + bar) % 3)]! + 12), random));
  }
  return { ...plan, beats, wav: toWav(mix) };
}

/** Makes the songs; a second or so of computing each. */
export const makeDemoSongs = (): DemoSong[] => [saltAndString(), harbourLamps(), paperWaltz()];
