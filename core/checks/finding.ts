import type { Edit, Piece, ResolvedTimes } from '../piece';
import type { LayoutText } from '../scene';
import type { Seconds } from '../time';

/** What checks look at, and what they say. */
export interface CheckContext {
  readonly piece: Piece;
  readonly times: ResolvedTimes;
  readonly layoutText: LayoutText;
}

/** `error`: what is rendered is not what was meant. `warning`: it is, and may not be liked. */
export type Severity = 'error' | 'warning';

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
  /** What puts it right; null where only people can. */
  readonly fix: { readonly label: string; readonly edits: readonly Edit[] } | null;
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
  fix: null,
  ...more,
});
