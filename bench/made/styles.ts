import type { Drum } from './notes';

/**
 * A way of playing, as patterns of one bar. Each character is a step: `.` nothing, `o` soft, `x` plain, `X` strong; in
 * the bass a digit is a degree of the scale (8 the octave), in chords `x` a short chord and `-` one that lasts to the next.
 * Where a lane has several patterns each song takes one of them.
 */
export interface Style {
  readonly name: string;
  readonly family: string;
  /** Beats a minute at which it is made. */
  readonly tempi: readonly number[];
  readonly beatsPerBar: number;
  /** Steps in a beat. */
  readonly steps: number;
  readonly drums?: Partial<Readonly<Record<Drum, readonly string[]>>>;
  readonly bass?: readonly string[];
  readonly chords?: readonly string[];
  /** Notes of melody in a beat, about; 0 for none. */
  readonly melody?: number;
  /** Share of a pair of steps that the first one takes: 0.5 is straight. */
  readonly swing?: number;
  /** Bars on one chord: below 1, chords change within the bar. */
  readonly barsPerChord?: number;
}

const EIGHTHS = 'x.x.x.x.x.x.x.x.';
const QUARTERS = 'x...x...x...x...';
const BACKBEAT = '....x.......x...';

const rock: Style[] = [
  {
    name: 'rock',
    family: 'rock',
    tempi: [72, 96, 112, 130, 146, 160, 176, 192],
    beatsPerBar: 4,
    steps: 4,
    drums: {
      kick: ['x.......x.......', 'x.......x.x.....', 'x.....x.x.......'],
      snare: [BACKBEAT],
      hat: [EIGHTHS, 'X.o.X.o.X.o.X.o.'],
    },
    bass: ['1.1.1.1.1.1.1.1.', '1...1...1...1...', '1.....1.1.......'],
    chords: ['-...............', 'x.x.x.x.x.x.x.x.', '-.......-.......'],
    melody: 0.7,
  },
  {
    name: 'punk',
    family: 'rock',
    tempi: [165, 182, 200],
    beatsPerBar: 4,
    steps: 2,
    drums: { kick: ['x.x.x.x.', 'x...x.x.'], snare: ['..x...x.'], hat: ['xxxxxxxx', 'x.x.x.x.'] },
    bass: ['11111111'],
    chords: ['xxxxxxxx', '-.......'],
  },
  {
    name: 'half-time rock',
    family: 'rock',
    tempi: [120, 134, 148],
    beatsPerBar: 4,
    steps: 4,
    drums: {
      kick: ['x.....x.........', 'x...............', 'x.x.........x...'],
      snare: ['........X.......'],
      ride: [EIGHTHS, QUARTERS],
    },
    bass: ['1...1...1...1...', '1.1.1.1.1.1.1.1.'],
    chords: ['-...............'],
    melody: 0.5,
  },
  {
    name: 'motown',
    family: 'rock',
    tempi: [100, 120, 138],
    beatsPerBar: 4,
    steps: 4,
    drums: { kick: ['x.....x.x.....x.'], snare: [QUARTERS], hat: [EIGHTHS] },
    bass: ['1..15.8.1..15.3.', '1...3...5...6...'],
    chords: ['..x...x...x...x.', 'x...x...x...x...'],
    melody: 0.8,
  },
  {
    name: 'train',
    family: 'rock',
    tempi: [96, 116, 150],
    beatsPerBar: 4,
    steps: 4,
    drums: { kick: [QUARTERS, 'x.......x.......'], snare: ['o.oxo.oxo.oxo.ox', 'ooXoooXoooXoooXo'] },
    bass: ['1.......5.......', '1...5...1...5...'],
    chords: ['....x.......x...', '..x...x...x...x.'],
    melody: 0.8,
  },
];

const electronic: Style[] = [
  {
    name: 'house',
    family: 'electronic',
    tempi: [112, 122, 132, 145],
    beatsPerBar: 4,
    steps: 4,
    drums: {
      kick: [QUARTERS],
      clap: [BACKBEAT, '................'],
      openHat: ['..x...x...x...x.'],
      shaker: ['xxxxxxxxxxxxxxxx', '................'],
    },
    bass: ['..1...1...1...1.', '..1..1..1.1...1.', '.11..11..11..11.'],
    chords: ['..x..x....x..x..', 'x..x..x...x..x..', '-...............'],
    barsPerChord: 2,
  },
  {
    name: 'techno',
    family: 'electronic',
    tempi: [125, 136, 148],
    beatsPerBar: 4,
    steps: 4,
    drums: {
      kick: [QUARTERS],
      hat: ['..x...x...x...x.', 'xxxxxxxxxxxxxxxx'],
      rim: ['...x..x....x..x.', '................'],
    },
    bass: ['.111.111.111.111', '1.1.1.1.1.1.1.1.'],
    barsPerChord: 4,
    melody: 0,
  },
  {
    name: 'breaks',
    family: 'electronic',
    tempi: [124, 138],
    beatsPerBar: 4,
    steps: 4,
    drums: { kick: ['x.........x.....', 'x.x.......x.....'], snare: ['....x..o.o..x..o', BACKBEAT], hat: [EIGHTHS] },
    bass: ['1..1..1...1.....', '1.......1.......'],
    chords: ['-...............'],
    melody: 0.5,
  },
  {
    name: 'drum and bass',
    family: 'electronic',
    tempi: [164, 172, 180],
    beatsPerBar: 4,
    steps: 4,
    drums: {
      kick: ['x.........x.....'],
      snare: [BACKBEAT, '....x..o.o..x...'],
      hat: [EIGHTHS],
      ride: ['................', QUARTERS],
    },
    bass: ['1...............', '1.........1.....'],
    chords: ['-...............'],
    barsPerChord: 2,
  },
  {
    name: 'synthwave',
    family: 'electronic',
    tempi: [84, 100, 116],
    beatsPerBar: 4,
    steps: 4,
    drums: { kick: [QUARTERS, 'x.......x.......'], snare: [BACKBEAT], hat: ['xxxxxxxxxxxxxxxx', EIGHTHS] },
    bass: ['1.1.1.1.1.1.1.1.', '1111111111111111', '1.8.1.8.1.8.1.8.'],
    chords: ['-...............'],
    melody: 2,
  },
  {
    name: 'disco',
    family: 'electronic',
    tempi: [108, 118, 128],
    beatsPerBar: 4,
    steps: 4,
    drums: {
      kick: [QUARTERS],
      snare: [BACKBEAT],
      openHat: ['..x...x...x...x.'],
      hat: ['x.x.x.x.x.x.x.x.', 'xx.xxx.xxx.xxx.x'],
    },
    bass: ['1.8.1.8.1.8.1.8.', '1..1..8.1..1..8.'],
    chords: ['..x...x...x...x.', 'x..x..x.x..x..x.'],
    melody: 0.5,
  },
  {
    name: 'chiptune',
    family: 'electronic',
    tempi: [110, 140, 165],
    beatsPerBar: 4,
    steps: 4,
    drums: { kick: ['x.......x.......', QUARTERS], snare: [BACKBEAT], hat: [EIGHTHS, '..x...x...x...x.'] },
    bass: ['1.1.8.8.1.1.8.8.', '1.1.1.1.1.1.1.1.'],
    melody: 2.5,
  },
];

const hiphop: Style[] = [
  {
    name: 'trap',
    family: 'hip hop',
    tempi: [128, 140, 150, 162],
    beatsPerBar: 4,
    steps: 4,
    drums: {
      kick: ['x.........x.....', 'x.....x.........', 'x..x......x.....', 'x.............x.'],
      snare: ['........X.......'],
      clap: ['........x.......', '................'],
      hat: [EIGHTHS, 'x.x.x.x.x.xxx.x.', 'x.x.xxx.x.x.xxxx'],
    },
    bass: ['1.........1.....', '1.....1.........', '1...............'],
    chords: ['-...............', '................'],
    melody: 0.5,
  },
  {
    name: 'boom bap',
    family: 'hip hop',
    tempi: [78, 86, 94, 102],
    beatsPerBar: 4,
    steps: 4,
    swing: 0.58,
    drums: { kick: ['x..x......xx....', 'x.x.......x.....', 'x......x.x......'], snare: [BACKBEAT], hat: [EIGHTHS] },
    bass: ['1..1......1.....', '1.......5.1.....'],
    chords: ['-.......-.......', 'x.....x.........'],
    melody: 0.5,
  },
  {
    name: 'slow rap',
    family: 'hip hop',
    tempi: [62, 70, 76],
    beatsPerBar: 4,
    steps: 4,
    drums: { kick: ['x.....x...x.....', 'x..x..x...x..x..'], snare: [BACKBEAT], hat: ['xxxxxxxxxxxxxxxx', EIGHTHS] },
    bass: ['1.....1...1.....'],
    chords: ['-...............'],
    melody: 0.6,
  },
  {
    name: 'funk',
    family: 'hip hop',
    tempi: [90, 104, 118],
    beatsPerBar: 4,
    steps: 4,
    drums: {
      kick: ['x.x...x...x..x..', 'x..x..x...x.....'],
      snare: ['....x..o.o..x..o'],
      hat: ['xxxxxxxxxxxxxxxx', EIGHTHS],
    },
    bass: ['1..1..1...5.1..8', '1.....1.8..1..5.'],
    chords: ['..x..x....x..x..', '.x.x..x..x.x..x.'],
    melody: 0.4,
  },
  {
    name: 'r and b',
    family: 'hip hop',
    tempi: [64, 74, 92],
    beatsPerBar: 4,
    steps: 4,
    drums: { kick: ['x......x..x.....', 'x.....x.........'], rim: [BACKBEAT], hat: [EIGHTHS] },
    bass: ['1......1..5.....'],
    chords: ['-.......-.......'],
    melody: 1,
  },
];

const jamaican: Style[] = [
  {
    name: 'one drop',
    family: 'jamaican',
    tempi: [66, 73, 80, 88],
    beatsPerBar: 4,
    steps: 4,
    drums: {
      kick: ['........x.......'],
      rim: ['........x.......', '........x.....x.'],
      hat: [EIGHTHS, 'o.x.o.x.o.x.o.x.', '..x...x...x...x.'],
    },
    bass: ['1..1..5.....1.3.', '..1.3.5...1.1...', '1.1...3.5.......'],
    chords: ['..x...x...x...x.', '..xx..xx..xx..xx'],
    barsPerChord: 1,
    melody: 0.5,
  },
  {
    name: 'steppers',
    family: 'jamaican',
    tempi: [70, 78, 132],
    beatsPerBar: 4,
    steps: 4,
    drums: { kick: [QUARTERS], rim: ['........x.......', '....x.......x...'], hat: [EIGHTHS] },
    bass: ['1.1.3.5.1.1.....', '1...1..55...3...'],
    chords: ['..x...x...x...x.'],
    barsPerChord: 2,
  },
  {
    name: 'ska',
    family: 'jamaican',
    tempi: [124, 142, 160],
    beatsPerBar: 4,
    steps: 4,
    drums: { kick: ['x.......x.......', '....x.......x...'], snare: [BACKBEAT], hat: ['..x...x...x...x.', EIGHTHS] },
    bass: ['1...3...5...6...', '1...1...5...3...'],
    chords: ['..x...x...x...x.'],
    melody: 1,
  },
  {
    name: 'dembow',
    family: 'jamaican',
    tempi: [88, 96, 104],
    beatsPerBar: 4,
    steps: 4,
    drums: { kick: [QUARTERS], snare: ['...x..x....x..x.'], hat: [EIGHTHS, '................'] },
    bass: ['1...1...1...1...', '1..1..1.1..1..1.'],
    chords: ['-...............', '..x...x...x...x.'],
    melody: 0.6,
  },
];

const latin: Style[] = [
  {
    name: 'bossa',
    family: 'latin',
    tempi: [116, 132, 150],
    beatsPerBar: 4,
    steps: 2,
    drums: { kick: ['x..xx..x'], rim: ['x..x..x.', 'x..x...x'], shaker: ['xxxxxxxx'] },
    bass: ['1..55..5', '1..15..1'],
    chords: ['x..x..x.', 'x.x..x.x'],
    melody: 0.8,
  },
  {
    name: 'samba',
    family: 'latin',
    tempi: [92, 104, 116],
    beatsPerBar: 2,
    steps: 4,
    drums: { kick: ['x..xX..x'], snare: ['x.xx.x.x'], shaker: ['xxxxxxxx'] },
    bass: ['1..15..5'],
    chords: ['x.x..x..'],
    melody: 1,
  },
  {
    name: 'tumbao',
    family: 'latin',
    tempi: [92, 168, 184],
    beatsPerBar: 4,
    steps: 2,
    drums: { rim: ['x..x..x.', '..x.x...'], tom: ['......xx'], shaker: ['x.xxx.xx'] },
    bass: ['...5..1.', '1..5..1.'],
    chords: ['x.x.xx.x', '.xx.x.xx'],
  },
  {
    name: 'cumbia',
    family: 'latin',
    tempi: [88, 98],
    beatsPerBar: 4,
    steps: 4,
    drums: { kick: [QUARTERS], shaker: ['x.xxx.xxx.xxx.xx'], tom: ['..........x...x.'] },
    bass: ['1.....3.5.......', '1...5...1...5...'],
    chords: ['..x...x...x...x.'],
    melody: 1,
  },
];

const jazz: Style[] = [
  {
    name: 'swing',
    family: 'jazz',
    tempi: [112, 136, 160, 188, 210],
    beatsPerBar: 4,
    steps: 3,
    drums: { ride: ['x..x.xx..x.x'], hat: ['...x.....x..'], kick: ['o..o..o..o..', '............'] },
    bass: ['1..3..5..6..', '1..2..3..5..'],
    chords: ['..x.........', 'x....x......', '-...........'],
    melody: 1.2,
  },
  {
    name: 'shuffle',
    family: 'jazz',
    tempi: [84, 104, 126],
    beatsPerBar: 4,
    steps: 3,
    drums: { kick: ['x.....x.....', 'x....xx.....'], snare: ['...x.....x..'], hat: ['x.xx.xx.xx.x'] },
    bass: ['1.13.35.56.6', '1..1..5..5..'],
    chords: ['-...........', 'x.xx.xx.xx.x'],
    melody: 1,
  },
  {
    name: 'two-beat',
    family: 'jazz',
    tempi: [176, 200],
    beatsPerBar: 4,
    steps: 2,
    drums: { kick: ['x...x...'], snare: ['..x...x.'] },
    bass: ['1...5...'],
    chords: ['..x...x.'],
    melody: 1,
  },
];

const three: Style[] = [
  {
    name: 'waltz',
    family: 'three',
    tempi: [88, 112, 132, 150, 172],
    beatsPerBar: 3,
    steps: 2,
    drums: { kick: ['x.....', '......'], snare: ['..x.x.', '......'], hat: ['......', 'x.x.x.'] },
    bass: ['1.....', '1.....'],
    chords: ['..x.x.'],
    melody: 0.8,
  },
  {
    name: 'jazz waltz',
    family: 'three',
    tempi: [120, 145, 170],
    beatsPerBar: 3,
    steps: 3,
    drums: { ride: ['x..x.xx..', 'x..x.xx.x'], hat: ['...x.....'], kick: ['o........'] },
    bass: ['1..3..5..', '1........'],
    chords: ['...x.....', '-........'],
    melody: 1,
  },
  {
    name: 'rock in three',
    family: 'three',
    tempi: [84, 110, 140, 166],
    beatsPerBar: 3,
    steps: 4,
    drums: { kick: ['x...........', 'x.........x.'], snare: ['....x...x...', '........x...'], hat: ['x.x.x.x.x.x.'] },
    bass: ['1.1.1.1.1.1.', '1...........'],
    chords: ['-...........'],
    melody: 1,
  },
  {
    name: 'arpeggio in three',
    family: 'three',
    tempi: [76, 100, 126],
    beatsPerBar: 3,
    steps: 2,
    bass: ['1.....'],
    chords: ['-.....'],
    melody: 2,
  },
];

const compound: Style[] = [
  {
    name: 'slow six-eight',
    family: 'compound',
    tempi: [46, 54, 62, 70],
    beatsPerBar: 2,
    steps: 6,
    drums: { kick: ['x...........', 'x.........x.'], snare: ['......x.....'], hat: ['x.x.x.x.x.x.'] },
    bass: ['1.....5.....', '1...........'],
    chords: ['-...........', 'x.x.x.x.x.x.'],
    melody: 1,
  },
  {
    name: 'twelve-eight',
    family: 'compound',
    tempi: [56, 66, 80],
    beatsPerBar: 4,
    steps: 3,
    drums: { kick: ['x.....x.....', 'x....xx.....'], snare: ['...x.....x..'], hat: ['xxxxxxxxxxxx'] },
    bass: ['1..1..5..5..', '1.....1.....'],
    chords: ['xxxxxxxxxxxx', '-...........'],
    melody: 1,
  },
  {
    name: 'jig',
    family: 'compound',
    tempi: [96, 112, 126],
    beatsPerBar: 2,
    steps: 3,
    drums: { kick: ['x.....', '......'], snare: ['......', '...x..'], shaker: ['xxxxxx', 'x.xx.x'] },
    bass: ['1..5..'],
    chords: ['x..x..', 'x.xx.x'],
    melody: 2.5,
  },
];

const odd: Style[] = [
  {
    name: 'five as three and two',
    family: 'odd',
    tempi: [96, 126, 158, 180],
    beatsPerBar: 5,
    steps: 2,
    drums: {
      kick: ['x.....x...', 'x..x..x...'],
      snare: ['....x...x.', '..x.x...x.'],
      hat: ['x.x.x.x.x.', 'xxxxxxxxxx'],
    },
    bass: ['1..1..5.5.', '1.....5...'],
    chords: ['-.....-...', 'x..x..x.x.'],
    melody: 0.8,
  },
  {
    name: 'five as two and three',
    family: 'odd',
    tempi: [104, 138, 168],
    beatsPerBar: 5,
    steps: 2,
    drums: { kick: ['x...x.....', 'x...x..x..'], snare: ['..x.....x.'], hat: ['x.x.x.x.x.', 'xxxxxxxxxx'] },
    bass: ['1...5.....', '1.1.5.5.5.'],
    chords: ['-...-.....'],
    melody: 0.8,
  },
  {
    name: 'seven as two two three',
    family: 'odd',
    tempi: [110, 150, 190, 225],
    beatsPerBar: 7,
    steps: 2,
    drums: {
      kick: ['x...x...x.....', 'x.......x.....'],
      snare: ['..x...x.....x.', '....x.......x.'],
      hat: ['x.x.x.x.x.x.x.'],
    },
    bass: ['1...1...5.....', '1...5...1...5.'],
    chords: ['-...-...-.....', '-.............'],
    melody: 0.7,
  },
  {
    name: 'seven as three two two',
    family: 'odd',
    tempi: [120, 160, 205],
    beatsPerBar: 7,
    steps: 2,
    drums: { kick: ['x.....x...x...'], snare: ['....x...x...x.', '......x...x...'], hat: ['x.x.x.x.x.x.x.'] },
    bass: ['1.....5...5...', '1..1..1...1...'],
    chords: ['-.....-...-...', '-.............'],
    melody: 0.7,
  },
  {
    name: 'seven as two three two',
    family: 'odd',
    tempi: [130, 176, 215],
    beatsPerBar: 7,
    steps: 2,
    drums: { kick: ['x...x.....x...'], snare: ['..x.....x...x.'], hat: ['x.x.x.x.x.x.x.'] },
    bass: ['1...5.....1...'],
    chords: ['-...-.....-...', '-.............'],
    melody: 0.7,
  },
];

const quiet: Style[] = [
  {
    name: 'piano ballad',
    family: 'quiet',
    tempi: [58, 68, 80],
    beatsPerBar: 4,
    steps: 2,
    bass: ['1.......', '1...5...'],
    chords: ['x.x.x.x.', '-...-...'],
    melody: 1,
  },
  {
    name: 'arpeggios',
    family: 'quiet',
    tempi: [72, 92, 118],
    beatsPerBar: 4,
    steps: 2,
    bass: ['1.......', '1...5...'],
    chords: ['-.......'],
    melody: 2,
  },
  {
    name: 'plucked',
    family: 'quiet',
    tempi: [80, 96, 112],
    beatsPerBar: 4,
    steps: 4,
    bass: ['1.......5.......', '1...1...5...5...'],
    chords: ['x..x..x.x..x..x.', '..x...x...x...x.'],
    melody: 1,
  },
];

const orchestral: Style[] = [
  {
    name: 'alberti',
    family: 'orchestral',
    tempi: [92, 120, 144],
    beatsPerBar: 4,
    steps: 2,
    bass: ['15351535'],
    chords: ['........', 'x...x...'],
    melody: 1,
    barsPerChord: 0.5,
  },
  {
    name: 'march',
    family: 'orchestral',
    tempi: [104, 118, 130],
    beatsPerBar: 2,
    steps: 4,
    drums: { snare: ['x.xxx.x.', 'x...x.xx'], kick: ['x.......', 'x...x...'] },
    bass: ['1...5...'],
    chords: ['..x...x.', 'x...x...'],
    melody: 1.2,
  },
  {
    name: 'ostinato',
    family: 'orchestral',
    tempi: [100, 128, 150],
    beatsPerBar: 4,
    steps: 4,
    drums: { tom: ['X..x..x.X..x..x.', 'X.......X...x.x.'], kick: ['X...............'] },
    bass: ['1.1.1.1.1.1.1.1.'],
    chords: ['x.xxx.xxx.xxx.xx', 'x.x.x.x.x.x.x.x.'],
    melody: 0.4,
  },
  {
    name: 'polka',
    family: 'orchestral',
    tempi: [100, 116, 128],
    beatsPerBar: 2,
    steps: 2,
    drums: { kick: ['x...', '....'], snare: ['.x.x', '....'] },
    bass: ['1.5.'],
    chords: ['.x.x'],
    melody: 1.6,
  },
];

export const STYLES: readonly Style[] = [
  ...rock,
  ...electronic,
  ...hiphop,
  ...jamaican,
  ...latin,
  ...jazz,
  ...three,
  ...compound,
  ...odd,
  ...quiet,
  ...orchestral,
];

export function styleNamed(name: string): Style {
  const style = STYLES.find((s) => s.name === name);
  if (!style) throw new Error(`no style ${name}`);
  return style;
}
