import type { SongAnalysis } from '@core/audio';
import type { CheckId, Finding } from '@core/checks';
import type { Piece } from '@core/piece';
import type { ContrastFinding } from './contrast-scan';

/** Messages between the page and the worker that looks for mistakes. Each piece of work has a number. */
export type ToChecks =
  | { readonly type: 'run'; readonly id: number; readonly piece: Piece; readonly analysis: SongAnalysis | null }
  | {
      readonly type: 'contrast';
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
  | { readonly type: 'contrast'; readonly id: number; readonly findings: readonly ContrastFinding[] }
  | { readonly type: 'failed'; readonly id: number; readonly message: string };
