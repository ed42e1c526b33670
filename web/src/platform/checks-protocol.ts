import type { SongAnalysis } from '@core/audio';
import type { CheckId, Finding, Flashing } from '@core/checks';
import type { Piece } from '@core/piece';
import type { ContrastFinding } from './contrast-scan';

/** What is found in painted frames, by what is looked for. */
export interface Scans {
  readonly contrast: ContrastFinding;
  readonly flashes: Flashing;
}

/** Messages between the page and the worker that looks for mistakes. Each piece of work has a number. */
export type ToChecks =
  | {
      readonly type: 'run';
      readonly id: number;
      readonly piece: Piece;
      readonly analysis: SongAnalysis | null;
      readonly checks: readonly CheckId[];
    }
  | {
      /** What is told from painted frames, one kind at a time. */
      readonly type: keyof Scans;
      readonly id: number;
      readonly piece: Piece;
      readonly analysis: SongAnalysis | null;
      readonly formatId: string;
    }
  | { readonly type: 'stop'; readonly id: number };

export type CheckedFinding = Finding & { readonly check: CheckId };

export type FromChecks =
  | { readonly type: 'findings'; readonly id: number; readonly findings: readonly CheckedFinding[] }
  | { readonly type: 'progress'; readonly id: number; readonly share: number }
  | {
      readonly [K in keyof Scans]: { readonly type: K; readonly id: number; readonly findings: readonly Scans[K][] };
    }[keyof Scans]
  | { readonly type: 'failed'; readonly id: number; readonly message: string };
