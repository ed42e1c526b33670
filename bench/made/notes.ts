/** A sound of a made song. */
export interface Note {
  /** Seconds. */
  readonly at: number;
  readonly length: number;
  /** MIDI note; of a drum, its key in the General MIDI percussion map. */
  readonly pitch: number;
  /** 1…127. */
  readonly velocity: number;
  readonly part: Part;
}

export const PARTS = ['drums', 'bass', 'chords', 'melody'] as const;
export type Part = (typeof PARTS)[number];

/** General MIDI keys of the drums that styles write. */
export const DRUMS = {
  kick: 36,
  rim: 37,
  snare: 38,
  clap: 39,
  tom: 45,
  hat: 42,
  openHat: 46,
  crash: 49,
  ride: 51,
  shaker: 70,
} as const;
export type Drum = keyof typeof DRUMS;

/** Music whose beats and bars are known. */
export interface KnownSong {
  readonly name: string;
  /** What it is cross-validated with: songs of one family are alike. */
  readonly family: string;
  readonly bpm: number;
  /** Seconds. */
  readonly length: number;
  readonly beats: readonly number[];
  readonly downbeats: readonly number[];
}

/** The same as notes. */
export interface MadeSong extends KnownSong {
  /** Nothing tells its bars: only its beats are judged. */
  readonly isWithoutBars?: boolean;
  /** Amplitude of white noise under it. */
  readonly noise?: number;
  readonly notes: readonly Note[];
  /** General MIDI programs of the parts with pitch, from 0. */
  readonly programs: Readonly<Record<'bass' | 'chords' | 'melody', number>>;
}
