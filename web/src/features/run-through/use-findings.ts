import { useEffect, useRef, useState } from 'react';
import type { SongAnalysis } from '@core/audio';
import { CHECK_IDS } from '@core/checks';
import type { CheckId } from '@core/checks';
import type { Piece } from '@core/piece';
import { runChecks } from '../../platform/checks-client';
import type { CheckedFinding } from '../../platform/checks-protocol';
import { setView } from '../../store/desk-store';
import { useAnalysis, usePiece } from '../../store/selectors';
import { WORDS } from './words';

interface Wanted {
  readonly piece: Piece;
  readonly analysis: SongAnalysis | null;
}

/**
 * What the worker finds in the piece as it is; null until it has looked once. While it looks, only the newest of what
 * comes meanwhile waits: a drag does not queue.
 * @param checks - those that are run; one list for the whole life of a component.
 */
export function useFindings(checks: readonly CheckId[] = CHECK_IDS): readonly CheckedFinding[] | null {
  const piece = usePiece();
  const analysis = useAnalysis();
  const [findings, setFindings] = useState<readonly CheckedFinding[] | null>(null);
  const wanted = useRef<Wanted | null>(null);
  const isLooking = useRef(false);
  useEffect(() => {
    const look = async (): Promise<void> => {
      isLooking.current = true;
      for (let next = wanted.current; next; next = wanted.current) {
        wanted.current = null;
        try {
          setFindings(await runChecks(next.piece, next.analysis, checks));
        } catch (error) {
          const why = error instanceof Error ? error.message : String(error);
          setView({ notice: WORDS.thePieceCouldNot(why) });
        }
      }
      isLooking.current = false;
    };
    wanted.current = { piece, analysis };
    if (!isLooking.current) void look();
  }, [piece, analysis, checks]);
  return findings;
}
