import type { StepId } from './steps';

interface StepWords {
  readonly title: string;
  readonly text: string;
  /** What the button beside it says; null for a step without one. */
  readonly act: string | null;
}

/** Wording of the guided first piece. */
export const WORDS = {
  pieceName: 'My first piece',
  songName: 'Salt and String',
  cardTitle: 'Your first piece, step by step',
  cardText: 'From an empty piece to a finished video in five minutes, with a song included.',
  start: 'Start the guide',
  region: 'Guide',
  leave: 'Close the guide',
  step: (n: number, of: number) => `Step ${n} of ${of}`,
  done: 'Your first piece is exported. Download it from the list, or keep editing: everything can be changed.',
  noSong: 'The guide’s song couldn’t be loaded. Drop your own song into the panel instead.',
  steps: {
    song: {
      title: 'Import a song',
      text: 'Its beats set the timing of the piece. Use this song, or drop your own into the panel.',
      act: 'Use “Salt and String”',
    },
    listen: {
      title: 'Play it',
      text: 'Press Space to play. The staff above the layers shows the beats; tall lines are bars.',
      act: null,
    },
    length: {
      title: 'Shorten the song',
      text: 'Open Cut, enter 15 s and press “Fit by whole bars”. The song then ends there.',
      act: null,
    },
    background: {
      title: 'Choose a background',
      text: 'Pick a colour in the panel. Bright text reads well on dark colours.',
      act: null,
    },
    words: { title: 'Add your text', text: 'Type over “Your text” on the canvas, then press Escape.', act: 'New text' },
    entrance: { title: 'Add an entrance', text: 'Choose an entrance. Each preview shows your own text.', act: null },
    accent: {
      title: 'Animate on the beat',
      text: 'Open Accent and choose a gesture that repeats on the beat.',
      act: null,
    },
    exit: { title: 'Add an exit', text: 'Open Exit. “Reverse of entrance” always fits.', act: null },
    check: {
      title: 'Check it',
      text: 'Open Run-through on the left. It finds what is too short, too faint or off the beat.',
      act: null,
    },
    render: { title: 'Export it', text: 'Press Export in the panel and wait until the video is done.', act: null },
  } satisfies Record<StepId, StepWords>,
  wide: 'Wide',
} as const;
