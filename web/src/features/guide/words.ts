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
  cardTitle: 'A first piece, step by step',
  cardText: 'From nothing to a rendered video in five minutes, with a song that is here already.',
  start: 'Start the guide',
  region: 'Guide',
  leave: 'Close the guide',
  step: (n: number, of: number) => `Step ${n} of ${of}`,
  done: 'Your first piece is rendered. Download it from the list, or go on: everything you made can be changed.',
  noSong: 'The song of the guide could not be fetched. Drop one of your own into the panel instead.',
  steps: {
    song: {
      title: 'Bring in a song',
      text: 'Its beats become the clock of the piece. Take this one, or drop your own into the panel.',
      act: 'Use “Salt and String”',
    },
    listen: {
      title: 'Listen',
      text: 'Press Space to play. The staff above the layers shows the beats; tall strokes begin a bar.',
      act: null,
    },
    length: {
      title: 'Make it short',
      text: 'Open Cut, ask for 15 s and press “Fit by whole bars”: the song gets its own ending there.',
      act: null,
    },
    background: {
      title: 'Put up a background',
      text: 'Choose its colour in the panel: dark ones make bright words easy to read.',
      act: null,
    },
    words: {
      title: 'Set your words',
      text: 'Type them over “Your words” on the canvas, then press Escape.',
      act: 'New text',
    },
    entrance: {
      title: 'Let them come in',
      text: 'Choose an entrance; each picture shows it with your own words.',
      act: null,
    },
    accent: {
      title: 'Let them move with the music',
      text: 'Open Accent and choose how they answer the beat.',
      act: null,
    },
    exit: { title: 'Let them leave', text: 'Open Exit. “As it came in, backwards” is a safe choice.', act: null },
    check: {
      title: 'Look again',
      text: 'Open Run-through on the left: it finds what is too short, too faint or off the beat.',
      act: null,
    },
    render: { title: 'Render it', text: 'Press Render in the panel, and wait until the video is done.', act: null },
  } satisfies Record<StepId, StepWords>,
  wide: 'Wide',
} as const;
