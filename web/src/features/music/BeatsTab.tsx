import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { NO_CORRECTION, pieceToSong } from '@core/piece';
import type { GridCorrection } from '@core/piece';
import { overallTempo } from '@core/time';
import { playhead } from '../../platform/clock';
import { edit, setView, useDesk } from '../../store/desk-store';
import { useAnalysis, usePiece, useTimes } from '../../store/selectors';
import { NumberField } from '../../ui/NumberField';
import { anchorStretch, correct, doubleBeats, freeStretch, halveBeats, nudgeGrid, thisIsOne } from './beat-commands';
import { Button } from '../../ui/Button';

const isDefault = (correction: GridCorrection) =>
  JSON.stringify(correction) === JSON.stringify({ ...NO_CORRECTION }) ||
  (Object.keys(NO_CORRECTION) as (keyof GridCorrection)[]).every(
    (key) => JSON.stringify(correction[key]) === JSON.stringify(NO_CORRECTION[key]),
  );

/** What was heard, and everything that puts it right. */
export function BeatsTab() {
  const piece = usePiece();
  const times = useTimes();
  const analysis = useAnalysis();
  const { hasClicks, flashesBeats, isMovingBeats, loop } = useDesk();
  const [perBar, setPerBar] = useState<number | null>(null);
  const [count, setCount] = useState(8);
  const { music } = piece;
  if (!music) return null;
  const { correction } = music;
  const beatsPerBar = times.grid.meters[0]?.beatsPerBar ?? 4;
  const bpm = overallTempo(times.grid);
  const others =
    analysis && correction.bpm === null && !correction.tapped
      ? analysis.tempi.filter((t) => t.likelihood >= 0.02).slice(1)
      : [];
  const wear = [
    correction.tapped && 'tapped by hand',
    correction.moves.length > 0 && `${correction.moves.length} beat${correction.moves.length === 1 ? '' : 's'} moved`,
    correction.bars.length > 0 && `“one” set ${correction.bars.length}×`,
    correction.spans.length > 0 &&
      `${correction.spans.length} anchored stretch${correction.spans.length === 1 ? '' : 'es'}`,
    correction.free.length > 0 && `${correction.free.length} stretch${correction.free.length === 1 ? '' : 'es'} free`,
  ].filter(Boolean);
  return (
    <>
      <div className="prop">
        <span />
        <span className="name">Tempo</span>
        <NumberField
          label="Tempo"
          value={bpm}
          unit="BPM"
          step={0.1}
          min={20}
          max={400}
          width={100}
          onChange={(v, g) => correct({ bpm: v }, g)}
        />
      </div>
      {others.length > 0 && (
        <Box as="p" className="muted" margin="2px 0 6px">
          Could also be {others.map((t) => `${t.bpm.toFixed(0)} (${Math.round(t.likelihood * 100)} %)`).join(', ')}
        </Box>
      )}
      <Flex gap="5px" flexWrap="wrap" margin="6px 0">
        <Button variant="soft" onClick={halveBeats}>
          Half the beats
        </Button>
        <Button variant="soft" onClick={doubleBeats}>
          Twice the beats
        </Button>
      </Flex>
      <div className="prop">
        <span />
        <span className="name">Beats a bar</span>
        <NumberField
          label="Beats a bar"
          value={beatsPerBar}
          min={1}
          max={16}
          decimals={0}
          onChange={(v, g) => correct({ beatsPerBar: Math.round(v) }, g)}
        />
      </div>
      <div className="prop">
        <span />
        <span className="name">Shift the beats</span>
        <NumberField
          label="Shift the beats"
          value={correction.shift * 1000}
          unit="ms"
          step={1}
          decimals={1}
          width={84}
          onChange={(v, g) => correct({ shift: v / 1000 }, g)}
        />
      </div>
      <Flex gap="5px" flexWrap="wrap" margin="6px 0">
        <Button variant="soft" onClick={() => nudgeGrid(-5)} aria-label="Beats 5 ms earlier">
          5 ms earlier
        </Button>
        <Button variant="soft" onClick={() => nudgeGrid(5)} aria-label="Beats 5 ms later">
          5 ms later
        </Button>
      </Flex>
      <hr className="rule" />
      <div className="prop">
        <span />
        <span className="name">Bars from here of</span>
        <NumberField
          label="Bars from here"
          value={perBar ?? beatsPerBar}
          min={1}
          max={16}
          decimals={0}
          width={52}
          onChange={(v) => setPerBar(Math.round(v))}
        />
      </div>
      <Flex gap="5px" flexWrap="wrap">
        <Button variant="soft" onClick={() => thisIsOne(perBar ?? beatsPerBar)}>
          This is one
        </Button>
        <Button
          variant="soft"
          onClick={() => correct({ firstDownbeat: pieceToSong(music, playhead.seconds) - correction.shift })}
        >
          Bar 1 starts at the playhead
        </Button>
      </Flex>
      <hr className="rule" />
      <Box as="p" className="muted" margin="0 0 6px">
        Play and tap <span className="mono">B</span> on each beat: four taps are enough.
      </Box>
      <Flex gap="5px" flexWrap="wrap">
        <Button variant="soft" aria-pressed={isMovingBeats} onClick={() => setView({ isMovingBeats: !isMovingBeats })}>
          Drag beats on the staff
        </Button>
        <Button variant="soft" aria-pressed={hasClicks} onClick={() => setView({ hasClicks: !hasClicks })}>
          Click track
        </Button>
        <Button variant="soft" aria-pressed={flashesBeats} onClick={() => setView({ flashesBeats: !flashesBeats })}>
          Flash beats
        </Button>
      </Flex>
      <hr className="rule" />
      <Box as="p" className="muted" margin="0 0 6px">
        {loop ? 'The marked stretch:' : 'Mark a stretch (drag with Shift over the music) to anchor or free it.'}
      </Box>
      {loop && (
        <>
          <div className="prop">
            <span />
            <span className="name">has this many beats</span>
            <NumberField
              label="Beats in the stretch"
              value={count}
              min={1}
              max={4000}
              decimals={0}
              width={60}
              onChange={(v) => setCount(Math.round(v))}
            />
          </div>
          <Flex gap="5px" flexWrap="wrap">
            <Button variant="soft" onClick={() => anchorStretch(count)}>
              Anchor its ends
            </Button>
            <Button variant="soft" onClick={freeStretch}>
              It is free time
            </Button>
          </Flex>
        </>
      )}
      {!isDefault(correction) && (
        <>
          <hr className="rule" />
          {wear.length > 0 && (
            <Box as="p" className="muted" margin="0 0 6px">
              {wear.join(' · ')}
            </Box>
          )}
          <Button variant="soft" onClick={() => edit([{ type: 'music.correct', correction: NO_CORRECTION }])}>
            Back to what was heard
          </Button>
        </>
      )}
    </>
  );
}
