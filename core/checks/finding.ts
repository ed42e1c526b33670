import type { SongAnalysis } from '../audio';
import type { Edit, Piece, ResolvedTimes } from '../piece';
import type { LayoutText } from '../scene';
import type { Seconds } from '../time';

/** Tells which words a dictionary has. */
export interface Spelling {
  /** @param word - in small letters, with straight apostrophes. */
  isRight(word: string): boolean;
  /** The word that is most likely meant; null if there is none like it. */
  suggest(word: string): string | null;
}

/** What checks look at, and what they say. */
export interface CheckContext {
  readonly piece: Piece;
  readonly times: ResolvedTimes;
  readonly layoutText: LayoutText;
  /** Of the piece's song; without it nothing is told of sound. */
  readonly analysis?: SongAnalysis | null;
  /** Without it nothing is told of spelling. */
  readonly spelling?: Spelling | null;
}

/** `error`: what is rendered is not what was meant. `warning`: it is, and may not be liked. `hint`: it might do more. */
export type Severity = 'error' | 'warning' | 'hint';

/** Edits that put something right, as one step. */
export interface Fix {
  readonly label: string;
  readonly edits: readonly Edit[];
}

export interface Finding {
  readonly severity: Severity;
  /** For people, a sentence. */
  readonly text: string;
  readonly layerId: string | null;
  readonly formatId: string | null;
  /** Seconds of the piece at which it is seen; null if it is not at one moment. */
  readonly at: Seconds | null;
  /** How long the layer would have to stay for it to be well, seconds; null if that is not the matter. */
  readonly wantedStay: Seconds | null;
  /** What puts it right, the likeliest first; none where only people can. */
  readonly fixes: readonly Fix[];
}

export interface CheckRow {
  readonly label: string;
  readonly run: (context: CheckContext) => readonly Finding[];
}

export const finding = (severity: Severity, text: string, more: Partial<Finding> = {}): Finding => ({
  severity,
  text,
  layerId: null,
  formatId: null,
  at: null,
  wantedStay: null,
  fixes: [],
  ...more,
});
