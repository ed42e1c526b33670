import { Box, Flex } from '@chakra-ui/react';
import { likelyCorrections } from '@core/audio';
import type { LikelyCorrection } from '@core/audio';
import { overallTempo } from '@core/time';
import { useAnalysis, usePiece, useTimes } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { changeBeats, hearBeats } from './beat-commands';
import type { BeatChange } from './beat-commands';
import { beatsHeard } from './beats-heard';
import { rememberOctave } from './octave-memory';
import { WORDS } from './words';

const CHANGES: Readonly<Record<LikelyCorrection, { change: BeatChange; why: string; label: string }>> = {
  'double-tempo': { change: 'double', why: WORDS.maybeDouble, label: WORDS.doubleTempo },
  'half-beat': { change: 'shift', why: WORDS.maybeHalfBeat, label: WORDS.shiftHalfBeat },
};

/**
 * Corrections that the drums of the song speak for, each to be heard before it is made. Nothing is offered once the beats
 * were corrected in that way, or where two tempi are offered anyway.
 */
export function BeatOffers() {
  const piece = usePiece();
  const { grid } = useTimes();
  const analysis = useAnalysis();
  const correction = piece.music?.correction;
  const heard = correction && beatsHeard(analysis, correction);
  if (!analysis || !correction || !heard?.isSteady) return null;
  const isOpen: Readonly<Record<LikelyCorrection, boolean>> = {
    'double-tempo': correction.factor === 1 && !heard.tempi,
    'half-beat': correction.shift === 0,
  };
  const tempo = overallTempo(grid) * 2;
  return likelyCorrections(analysis)
    .filter((id) => isOpen[id])
    .map((id) => {
      const { change, why, label } = CHANGES[id];
      return (
        <Box key={id} margin="4px 0 8px" role="note">
          <Box as="p" margin="0 0 6px">
            {why}
          </Box>
          <Flex gap="5px" flexWrap="wrap">
            <Button variant="soft" onClick={() => hearBeats(change)} aria-label={WORDS.hearOffer(label)}>
              {WORDS.hear}
            </Button>
            <Button
              variant="lamp"
              onClick={() => {
                if (id === 'double-tempo') rememberOctave(piece, 'quick');
                changeBeats(change);
              }}
            >
              {id === 'double-tempo' ? WORDS.atTempo(label, tempo.toFixed(0)) : label}
            </Button>
          </Flex>
        </Box>
      );
    });
}
