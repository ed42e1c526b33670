import { Box, Flex } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { ANALYSIS_VERSION } from '@core/audio';
import { compareHearing, songOf } from '@core/piece';
import type { HearingComparison } from '@core/piece';
import { saidBy } from '../../platform/api';
import { edit, setAnalysis, setView, useDesk } from '../../store/desk-store';
import { useAnalysis, usePiece } from '../../store/selectors';
import { analysisName } from '../../store/song-analyses';
import { Button } from '../../ui/Button';
import { ProgressBar } from '../../ui/ProgressBar';
import { LEFT, hearAnew } from './hear-anew';
import { HearingCompared } from './HearingCompared';
import { WORDS } from './words';

/** Offers to hear a song anew that was heard by an earlier method; nothing changes before its beats are taken. */
export function HearAnew() {
  const piece = usePiece();
  const analysis = useAnalysis();
  const hash = songOf(piece)?.hash;
  const [progress, setProgress] = useState<number | null>(null);
  const [compared, setCompared] = useState<HearingComparison | null>(null);
  const listening = useRef<AbortController | null>(null);
  useEffect(() => () => listening.current?.abort(LEFT), [hash]);
  if (!analysis || !hash || analysis.version >= ANALYSIS_VERSION) return null;
  const listen = () => {
    const { signal } = (listening.current = new AbortController());
    setProgress(0);
    hearAnew(hash, setProgress, signal)
      .then((found) => {
        const now = useDesk.getState();
        if (signal.aborted || !now.piece || !now.analysis) return;
        // Known before they are taken, so that times are right at once.
        setAnalysis(analysisName({ hash, version: found.version }), found);
        setCompared(compareHearing(now.piece, now.analysis, found));
      })
      .catch((error: unknown) => {
        if (!signal.aborted) setView({ notice: saidBy(error, WORDS.couldNotBeHeardAnew) });
      })
      .finally(() => listening.current?.signal === signal && setProgress(null));
  };
  const take = ({ rehearing }: HearingComparison) => {
    setCompared(null);
    if (edit([{ type: 'music.rehear', ...rehearing }])) setView({ notice: WORDS.newBeatsTaken });
  };
  return (
    <Box margin="4px 0 8px" role="note">
      <Box as="p" margin="0 0 6px">
        {WORDS.heardByAnEarlierMethod}
      </Box>
      {progress === null ? (
        <Button variant="soft" onClick={listen}>
          {WORDS.hearItAnew}
        </Button>
      ) : (
        <Flex gap="8px" align="center">
          <ProgressBar label={WORDS.listeningAnew} share={progress} flex="1" />
          <Button
            variant="quiet"
            onClick={() => {
              listening.current?.abort();
              setProgress(null);
            }}
          >
            {WORDS.cancel}
          </Button>
        </Flex>
      )}
      {compared && (
        <HearingCompared compared={compared} onTake={() => take(compared)} onClose={() => setCompared(null)} />
      )}
    </Box>
  );
}
