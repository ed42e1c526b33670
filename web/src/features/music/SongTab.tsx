import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { FADE_CURVES, playedLength, splitParts } from '@core/piece';
import type { FadeCurve } from '@core/piece';
import { formatClock } from '@core/time';
import { playhead } from '../../platform/clock';
import { edit, useDesk } from '../../store/desk-store';
import { useAnalysis, usePiece } from '../../store/selectors';
import { NumberField } from '../../ui/NumberField';
import { hitAtPlayhead } from './marker-commands';
import {
  fitSongTo,
  keepStretch,
  leaveOutPart,
  leaveOutStretch,
  putHere,
  repeatPart,
  repeatStretch,
  splitSong,
  uncutSong,
} from './song-commands';
import { Choice } from '../../ui/Choice';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

const CURVE_WORDS = { even: 'linear', power: WORDS.evenLoudness, soft: 'soft' } as const satisfies Record<
  FadeCurve,
  string
>;

/** Cutting the song so that it says what the piece needs, in the time the piece has. */
export function SongTab() {
  const { music } = usePiece();
  const analysis = useAnalysis();
  const loop = useDesk((s) => s.loop);
  const [wanted, setWanted] = useState(30);
  if (!music || !analysis) return <p className="muted">{WORDS.theSongCanBeCut}</p>;
  const parts = splitParts(music, analysis.duration);
  const set = (change: Partial<typeof music>, gesture: string) =>
    edit([{ type: 'music.set', music: { ...music, ...change } }], gesture);
  const isCut = music.cuts.length > 0 || music.trimStart > 0 || music.trimEnd !== null;
  const curve = (label: string, value: FadeCurve, key: 'fadeInCurve' | 'fadeOutCurve') => (
    <Choice
      variant="quiet"
      className="fade-curve"
      aria-label={label}
      value={value}
      onChange={(e) => set({ [key]: e.target.value as FadeCurve }, key)}
    >
      {FADE_CURVES.map((c) => (
        <option key={c} value={c}>
          {CURVE_WORDS[c]}
        </option>
      ))}
    </Choice>
  );
  return (
    <>
      <Box as="p" className="muted" margin="0 0 6px">
        {loop ? WORDS.theMarkedStretchDrawn : WORDS.markAStretchDragOver}
      </Box>
      <Flex gap="5px" flexWrap="wrap">
        <Button variant="soft" disabled={!loop} onClick={leaveOutStretch}>
          {WORDS.leaveItOut}
        </Button>
        <Button variant="soft" disabled={!loop} onClick={repeatStretch}>
          {WORDS.playItTwice}
        </Button>
        <Button variant="soft" disabled={!loop} onClick={keepStretch}>
          {WORDS.playOnlyIt}
        </Button>
      </Flex>
      <hr className="rule" />
      <div className="prop">
        <span />
        <span className="name">{WORDS.fitTheSongTo}</span>
        <NumberField
          label={WORDS.fitToLength}
          value={wanted}
          unit="s"
          step={0.5}
          min={1}
          max={600}
          decimals={1}
          width={76}
          onChange={setWanted}
        />
      </div>
      <Button variant="soft" data-guide="fit" onClick={() => fitSongTo(wanted)}>
        {WORDS.fitByWholeBars}
      </Button>
      <Box as="p" className="muted" margin="6px 0 0">
        {WORDS.playsOfS(playedLength(music, analysis.duration).toFixed(1), analysis.duration.toFixed(1))}
      </Box>
      <hr className="rule" />
      <Box as="p" className="muted" margin="0 0 6px">
        {WORDS.putUnderThePlayhead}
      </Box>
      <Flex gap="5px" flexWrap="wrap">
        {analysis.drops.slice(0, 4).map((drop) => (
          <Button key={drop.time} variant="soft" onClick={() => putHere(drop.time)}>
            {WORDS.theDropAt}
            <span className="mono">{formatClock(drop.time).slice(1, 7)}</span>
          </Button>
        ))}
        {analysis.downbeats[0] !== undefined && (
          <Button variant="soft" onClick={() => putHere(analysis.downbeats[0]!)}>
            {WORDS.theFirstBar}
          </Button>
        )}
        <Button
          variant="soft"
          onClick={() => {
            const hit = hitAtPlayhead();
            if (hit) putHere(hit.songSeconds);
          }}
        >
          {WORDS.theNearestHit}
        </Button>
      </Flex>
      <hr className="rule" />
      <Flex gap="5px" flexWrap="wrap" marginBottom="6px">
        <Button variant="soft" onClick={() => splitSong('beat')}>
          {WORDS.splitAtTheBeat}
        </Button>
        <Button variant="soft" onClick={() => splitSong('here')}>
          {WORDS.splitHere}
        </Button>
      </Flex>
      {parts.length > 1 &&
        parts.map((part, i) => (
          <Flex
            key={`${part.at}`}
            className="list-row"
            role="group"
            aria-label={WORDS.part(i + 1)}
            alignItems="center"
            gap="4px"
          >
            <Button
              variant="quiet"
              className="mono"
              flex="1"
              justifyContent="flex-start"
              padding="2px 4px"
              onClick={() => playhead.set(Math.max(0, part.at))}
            >
              {formatClock(part.from).slice(1, 7)}–{formatClock(part.to).slice(1, 7)}
            </Button>
            <Button variant="quiet" padding="2px 4px" onClick={() => repeatPart(i)}>
              {WORDS.twice}
            </Button>
            <Button variant="quiet" padding="2px 4px" onClick={() => leaveOutPart(i)}>
              {WORDS.out}
            </Button>
          </Flex>
        ))}
      {isCut && (
        <Button variant="soft" marginTop="6px" onClick={uncutSong}>
          {WORDS.playItUncut}
        </Button>
      )}
      <hr className="rule" />
      <div className="prop">
        <span />
        <span className="name">
          {WORDS.fadeIn}
          {curve(WORDS.fadeInCurve, music.fadeInCurve, 'fadeInCurve')}
        </span>
        <NumberField
          label={WORDS.fadeIn2}
          value={music.fadeIn}
          unit="s"
          step={0.05}
          min={0}
          width={66}
          onChange={(v, g) => set({ fadeIn: v }, g ?? 'fade-in')}
        />
      </div>
      <div className="prop">
        <span />
        <span className="name">
          {WORDS.fadeOut}
          {curve(WORDS.fadeOutCurve, music.fadeOutCurve, 'fadeOutCurve')}
        </span>
        <NumberField
          label={WORDS.fadeOut2}
          value={music.fadeOut}
          unit="s"
          step={0.05}
          min={0}
          width={66}
          onChange={(v, g) => set({ fadeOut: v }, g ?? 'fade-out')}
        />
      </div>
    </>
  );
}
