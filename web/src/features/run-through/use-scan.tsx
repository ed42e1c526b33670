import { Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { ReactNode } from 'react';
import type { Piece } from '@core/piece';
import type { Scan } from '../../platform/checks-client';
import { setView, useDesk } from '../../store/desk-store';
import { useAnalysis, usePiece } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { ProgressBar } from '../../ui/ProgressBar';
import { WORDS } from './words';

/**
 * Looking at painted frames, which takes a while: its button with progress and a way to stop, and what it last found.
 * @param couldNot - what is told if it goes wrong.
 * @returns What was found, null before the first look, and whether the piece has changed since.
 */
export function useScan<F>(
  scan: Scan<F>,
  label: string,
  couldNot: (why: string) => string,
): { bar: ReactNode; found: readonly F[] | null; isOld: boolean } {
  const piece = usePiece();
  const analysis = useAnalysis();
  const formatId = useDesk((s) => s.formatId);
  const [result, setResult] = useState<{ piece: Piece; found: readonly F[] } | null>(null);
  const [progress, setProgress] = useState<{ share: number; stop: AbortController } | null>(null);
  const look = () => {
    const stop = new AbortController();
    setProgress({ share: 0, stop });
    scan(piece, analysis, formatId, (share) => setProgress({ share, stop }), stop.signal)
      .then((found) => {
        if (!stop.signal.aborted) setResult({ piece, found });
      })
      .catch((error: unknown) => {
        if (error instanceof DOMException && error.name === 'AbortError') return;
        setView({ notice: couldNot(error instanceof Error ? error.message : String(error)) });
      })
      .finally(() => setProgress(null));
  };
  const bar = (
    <Flex alignItems="center" gap="8px" margin="8px 0">
      <Button variant="soft" disabled={progress !== null} onClick={look}>
        {label}
      </Button>
      {progress && (
        <>
          <ProgressBar label={label} share={progress.share} flex="1" />
          <Button variant="quiet" onClick={() => progress.stop.abort()}>
            {WORDS.stop}
          </Button>
        </>
      )}
    </Flex>
  );
  return { bar, found: result?.found ?? null, isOld: result !== null && result.piece !== piece };
}
