import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { NO_CORRECTION, pieceToSong } from '@core/piece';
import type { GridCorrection } from '@core/piece';
import { overallTempo } from '@core/time';
import { playhead } from '../../platform/clock';
import { edit, setView, useDesk } from '../../store/desk-store';
import { useAnalysis, usePiece, useTimes } from '../../store/selectors';
import { NumberField } from '../../ui/NumberField';
import { anchorStretch, changeBeats, correct, freeStretch, nudgeGrid, thisIsOne } from './beat-commands';
import { Button } from '../../ui/Button';
import { beatsHeard } from './beats-heard';
import { BeatVerdict } from './BeatVerdict';
import { HearAnew } from './HearAnew';
import { GroupsChoice } from './GroupsChoice';
import { WORDS } from './words';

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
  const [groupsHere, setGroupsHere] = useState<number[]>([]);
  const [count, setCount] = useState(8);
  const { music } = piece;
  if (!music) return null;
  const { correction } = music;
  const { beatsPerBar, groups = [] } = times.grid.meters[0] ?? { beatsPerBar: 4 };
  const bpm = overallTempo(times.grid);
  const heard = beatsHeard(analysis, correction);
  const others = heard?.isSteady
    ? analysis!.tempi.slice(1).filter((t) => t.likelihood >= 0.02 && !heard.tempi?.includes(t.bpm))
    : [];
  const wear = [
    correction.tapped && WORDS.tappedByHand,
    correction.moves.length > 0 && WORDS.beatMoved(correction.moves.length),
    correction.bars.length > 0 && WORDS.oneSet(correction.bars.length),
    correction.spans.length > 0 && WORDS.anchoredStretch(correction.spans.length),
    correction.free.length > 0 && WORDS.stretchFree(correction.free.length),
  ].filter(Boolean);
  return (
    <>
      <div className="prop">
        <span />
        <span className="name">{WORDS.tempo}</span>
        <NumberField
          label={WORDS.tempo}
          value={bpm}
          unit="BPM"
          step={0.1}
          min={20}
          max={400}
          width={100}
          onChange={(v, g) => correct({ bpm: v }, g)}
        />
      </div>
      <BeatVerdict />
      <HearAnew />
      {others.length > 0 && (
        <Box as="p" className="muted" margin="2px 0 6px">
          {WORDS.couldAlsoBe}
          {others.map((t) => `${t.bpm.toFixed(0)} (${Math.round(t.likelihood * 100)} %)`).join(', ')}
        </Box>
      )}
      <Flex gap="5px" flexWrap="wrap" margin="6px 0">
        <Button variant="soft" onClick={() => changeBeats('half')}>
          {WORDS.halfTempo}
        </Button>
        <Button variant="soft" onClick={() => changeBeats('double')}>
          {WORDS.doubleTempo}
        </Button>
      </Flex>
      <div className="prop">
        <span />
        <span className="name">{WORDS.beatsABar}</span>
        <NumberField
          label={WORDS.beatsABar}
          value={beatsPerBar}
          min={1}
          max={16}
          decimals={0}
          onChange={(v, g) => correct({ beatsPerBar: Math.round(v) }, g)}
        />
      </div>
      <GroupsChoice
        label={WORDS.inGroupsOf}
        beatsPerBar={beatsPerBar}
        groups={groups}
        onChange={(chosen) => correct({ groups: chosen })}
      />
      <div className="prop">
        <span />
        <span className="name">{WORDS.shiftTheBeats}</span>
        <NumberField
          label={WORDS.shiftTheBeats}
          value={correction.shift * 1000}
          unit="ms"
          step={1}
          decimals={1}
          width={84}
          onChange={(v, g) => correct({ shift: v / 1000 }, g)}
        />
      </div>
      <Flex gap="5px" flexWrap="wrap" margin="6px 0">
        <Button variant="soft" onClick={() => nudgeGrid(-5)} aria-label={WORDS.beats5MsEarlier}>
          {WORDS.n5MsEarlier}
        </Button>
        <Button variant="soft" onClick={() => nudgeGrid(5)} aria-label={WORDS.beats5MsLater}>
          {WORDS.n5MsLater}
        </Button>
      </Flex>
      <hr className="rule" />
      <div className="prop">
        <span />
        <span className="name">{WORDS.barsFromHereOf}</span>
        <NumberField
          label={WORDS.barsFromHere}
          value={perBar ?? beatsPerBar}
          min={1}
          max={16}
          decimals={0}
          width={52}
          onChange={(v) => setPerBar(Math.round(v))}
        />
      </div>
      <GroupsChoice
        label={WORDS.groupsFromHere}
        beatsPerBar={perBar ?? beatsPerBar}
        groups={groupsHere}
        onChange={setGroupsHere}
      />
      <Flex gap="5px" flexWrap="wrap" marginTop="6px">
        <Button variant="soft" onClick={() => thisIsOne(perBar ?? beatsPerBar, groupsHere)}>
          {WORDS.thisIsOne}
        </Button>
        <Button
          variant="soft"
          onClick={() => correct({ firstDownbeat: pieceToSong(music, playhead.seconds) - correction.shift })}
        >
          {WORDS.bar1StartsAt}
        </Button>
      </Flex>
      <hr className="rule" />
      <Box as="p" className="muted" margin="0 0 6px">
        {WORDS.playAndTap}
        <span className="mono">B</span>
        {WORDS.onEachBeatFour}
      </Box>
      <Flex gap="5px" flexWrap="wrap">
        <Button variant="soft" aria-pressed={isMovingBeats} onClick={() => setView({ isMovingBeats: !isMovingBeats })}>
          {WORDS.dragBeatsOnThe}
        </Button>
        <Button variant="soft" aria-pressed={hasClicks} onClick={() => setView({ hasClicks: !hasClicks })}>
          {WORDS.clickTrack}
        </Button>
        <Button variant="soft" aria-pressed={flashesBeats} onClick={() => setView({ flashesBeats: !flashesBeats })}>
          {WORDS.flashBeats}
        </Button>
      </Flex>
      <hr className="rule" />
      <Box as="p" className="muted" margin="0 0 6px">
        {loop ? WORDS.theMarkedStretch : WORDS.markAStretchDrag}
      </Box>
      {loop && (
        <>
          <div className="prop">
            <span />
            <span className="name">{WORDS.hasThisManyBeats}</span>
            <NumberField
              label={WORDS.beatsInTheStretch}
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
              {WORDS.anchorItsEnds}
            </Button>
            <Button variant="soft" onClick={freeStretch}>
              {WORDS.itIsFreeTime}
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
            {WORDS.backToWhatWas}
          </Button>
        </>
      )}
    </>
  );
}
