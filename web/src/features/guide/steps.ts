import { NEW_BACKGROUND, playedLength } from '@core/piece';
import type { GestureRole } from '@core/motion';
import type { Layer, Piece, TextLayer } from '@core/piece';
import type { SongAnalysis } from '@core/audio';
import type { Rung } from '../../store/desk-store';
import { UNTOUCHED_WORDS } from '../layers/add-layers';

/** What a step can see of the desk. */
export interface GuidedDesk {
  readonly piece: Piece;
  readonly analysis: SongAnalysis | null;
  readonly rung: Rung | null;
  readonly isPlaying: boolean;
  readonly editingText: string | null;
  /** Whether a video of this piece has been rendered. */
  readonly isRendered: boolean;
}

interface Step {
  /** The panel it is done in, which opens with it; null leaves the panels alone. */
  readonly rung: Rung | null;
  /** What is marked while it is to be done: a CSS selector. */
  readonly target: string;
  readonly isDone: (desk: GuidedDesk) => boolean;
}

/** The longest song that the guide calls short, in seconds: 15 and a bar that rounding adds. */
const SHORT_SECONDS = 20;

/** Text that someone typed. */
export const isWritten = (layer: Layer): layer is TextLayer =>
  layer.kind === 'text' && layer.content.text.trim() !== '' && layer.content.text !== UNTOUCHED_WORDS;

const moves = (role: GestureRole) => (desk: GuidedDesk) =>
  desk.piece.layers.some((layer) => isWritten(layer) && layer.gestures.some((use) => use.role === role));

const roleTarget = (role: GestureRole) =>
  `[aria-label="Role"] [data-value="${role}"]:not([data-selected]), [aria-label="Role"]:has([data-value="${role}"][data-selected]) ~ * [role=listbox]`;

/**
 * The steps of a first piece, in the order of the work. Each sees by the piece itself that it is done, so that it does
 * not matter by which of several ways it was.
 */
export const STEPS = {
  song: {
    rung: 'music',
    target: '.panel .drop',
    isDone: ({ piece, analysis }) => piece.music !== null && analysis !== null,
  },
  listen: { rung: 'music', target: '.transport .play', isDone: ({ isPlaying }) => isPlaying },
  length: {
    rung: 'music',
    target: '[aria-label="Music tools"] [data-value="song"]:not([data-selected]), [data-guide="fit"]',
    isDone: ({ piece, analysis }) =>
      piece.music !== null && analysis !== null && playedLength(piece.music, analysis.duration) <= SHORT_SECONDS,
  },
  background: {
    rung: 'colour',
    target: '.panel [data-guide="background"]',
    isDone: ({ piece }) => piece.background.value !== NEW_BACKGROUND,
  },
  words: {
    rung: null,
    target: '[data-guide="act"]',
    isDone: ({ piece, editingText }) => editingText === null && piece.layers.some(isWritten),
  },
  entrance: { rung: 'motion', target: roleTarget('entrance'), isDone: moves('entrance') },
  accent: { rung: 'motion', target: roleTarget('accent'), isDone: moves('accent') },
  exit: { rung: 'motion', target: roleTarget('exit'), isDone: moves('exit') },
  check: { rung: null, target: '[data-rung="run-through"]', isDone: ({ rung }) => rung === 'run-through' },
  render: { rung: 'send', target: '[data-guide="render"]', isDone: ({ isRendered }) => isRendered },
} as const satisfies Record<string, Step>;

export type StepId = keyof typeof STEPS;

export const STEP_IDS = Object.keys(STEPS) as readonly StepId[]; // keys of the table

/** The steps that are done: once done, a step stays so. */
export function doneSteps(before: readonly StepId[], desk: GuidedDesk): readonly StepId[] {
  const now = STEP_IDS.filter((id) => before.includes(id) || STEPS[id].isDone(desk));
  return now.length === before.length ? before : now;
}

/** The step to be done next; null when all are. */
export const nextStep = (done: readonly StepId[]): StepId | null => STEP_IDS.find((id) => !done.includes(id)) ?? null;
