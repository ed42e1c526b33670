import { Box, Flex } from '@chakra-ui/react';
import { doubtfulStretches, overallTempo } from '@core/time';
import { isPlaying } from '../../platform/playback';
import { setView } from '../../store/desk-store';
import { useAnalysis, usePiece, useTimes } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { togglePlay } from '../desk/play-commands';
import { changeBeats, freeSong, goToDoubtful, hearBeats } from './beat-commands';
import { BeatOffers } from './BeatOffers';
import { beatsHeard } from './beats-heard';
import { rememberOctave } from './octave-memory';
import { WORDS } from './words';

/** Two tempi nearer than this are one. */
const SAME_TEMPO = 0.1;

/** How sure the beats are, with a way out where they are not: no beat at all, two tempi that fit, doubtful stretches. */
export function BeatVerdict() {
  const piece = usePiece();
  const { music } = piece;
  const { grid } = useTimes();
  const analysis = useAnalysis();
  const heard = music && beatsHeard(analysis, music.correction);
  if (!heard) return null;
  if (!heard.isSteady) {
    if (music.correction.free.length > 0) return null;
    return (
      <Box margin="4px 0 8px" role="note">
        <Box as="p" margin="0 0 6px">
          {WORDS.noSteadyBeat}
        </Box>
        <Button variant="soft" onClick={freeSong}>
          {WORDS.freeTimeHitsOnly}
        </Button>
      </Box>
    );
  }
  const doubtful = doubtfulStretches(grid);
  const { tempi } = heard;
  const now = overallTempo(grid);
  const hear = () => {
    setView({ hasClicks: true });
    if (!isPlaying()) void togglePlay();
  };
  return (
    <>
      {tempi && (
        <Box margin="4px 0 8px" role="note">
          <Box as="p" margin="0 0 6px">
            {WORDS.eitherTempo(tempi[0].toFixed(0), tempi[1].toFixed(0))}
          </Box>
          <Flex gap="5px" flexWrap="wrap">
            {tempi.map((bpm, i) => {
              const isNow = Math.abs(now / bpm - 1) < SAME_TEMPO;
              return (
                <Button
                  key={i}
                  variant="soft"
                  aria-label={WORDS.beatsAt(bpm.toFixed(0))}
                  aria-pressed={isNow}
                  onClick={() => {
                    rememberOctave(piece, i === 0 ? 'slow' : 'quick');
                    if (!isNow) changeBeats(i === 0 ? 'half' : 'double');
                  }}
                >
                  {bpm.toFixed(0)}
                </Button>
              );
            })}
            <Button variant="soft" onClick={hear}>
              {WORDS.hearWithClicks}
            </Button>
            {tempi.map(
              (bpm, i) =>
                Math.abs(now / bpm - 1) >= SAME_TEMPO && (
                  <Button key={bpm} variant="soft" onClick={() => hearBeats(i === 0 ? 'half' : 'double')}>
                    {WORDS.hearAt(bpm.toFixed(0))}
                  </Button>
                ),
            )}
          </Flex>
        </Box>
      )}
      <BeatOffers />
      {doubtful.length > 0 && (
        <Flex gap="8px" align="center" margin="2px 0 6px">
          <span className="muted">{WORDS.doubtfulPlaces(doubtful.length)}</span>
          <Button variant="soft" onClick={goToDoubtful}>
            {WORDS.toTheNext}
          </Button>
        </Flex>
      )}
    </>
  );
}
