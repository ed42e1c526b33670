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
  fitSong,
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

const CURVE_WORDS = { even: 'linear', power: 'even loudness', soft: 'soft' } as const satisfies Record<
  FadeCurve,
  string
>;

/** Cutting the song so that it says what the piece needs, in the time the piece has. */
export function SongTab() {
  const { music } = usePiece();
  const analysis = useAnalysis();
  const loop = useDesk((s) => s.loop);
  const [wanted, setWanted] = useState(30);
  if (!music || !analysis) return <p className="muted">The song can be cut once it has been listened to.</p>;
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
        {loop ? 'The marked stretch, drawn to its beats:' : 'Mark a stretch: drag over the music with Shift held.'}
      </Box>
      <Flex gap="5px" flexWrap="wrap">
        <Button variant="soft" disabled={!loop} onClick={leaveOutStretch}>
          Leave it out
        </Button>
        <Button variant="soft" disabled={!loop} onClick={repeatStretch}>
          Play it twice
        </Button>
        <Button variant="soft" disabled={!loop} onClick={keepStretch}>
          Play only it
        </Button>
      </Flex>
      <hr className="rule" />
      <div className="prop">
        <span />
        <span className="name">Fit the song to</span>
        <NumberField
          label="Fit to length"
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
      <Button variant="soft" data-guide="fit" onClick={() => fitSong(wanted)}>
        Fit by whole bars
      </Button>
      <Box as="p" className="muted" margin="6px 0 0">
        Plays {playedLength(music, analysis.duration).toFixed(1)} of {analysis.duration.toFixed(1)} s
      </Box>
      <hr className="rule" />
      <Box as="p" className="muted" margin="0 0 6px">
        Put under the playhead:
      </Box>
      <Flex gap="5px" flexWrap="wrap">
        {analysis.drops.slice(0, 4).map((drop) => (
          <Button key={drop.time} variant="soft" onClick={() => putHere(drop.time)}>
            The drop at <span className="mono">{formatClock(drop.time).slice(1, 7)}</span>
          </Button>
        ))}
        {analysis.downbeats[0] !== undefined && (
          <Button variant="soft" onClick={() => putHere(analysis.downbeats[0]!)}>
            The first bar
          </Button>
        )}
        <Button
          variant="soft"
          onClick={() => {
            const hit = hitAtPlayhead();
            if (hit) putHere(hit.songSeconds);
          }}
        >
          The nearest hit
        </Button>
      </Flex>
      <hr className="rule" />
      <Flex gap="5px" flexWrap="wrap" marginBottom="6px">
        <Button variant="soft" onClick={() => splitSong('beat')}>
          Split at the beat
        </Button>
        <Button variant="soft" onClick={() => splitSong('here')}>
          Split here
        </Button>
      </Flex>
      {parts.length > 1 &&
        parts.map((part, i) => (
          <Flex
            key={`${part.at}`}
            className="list-row"
            role="group"
            aria-label={`Part ${i + 1}`}
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
              twice
            </Button>
            <Button variant="quiet" padding="2px 4px" onClick={() => leaveOutPart(i)}>
              out
            </Button>
          </Flex>
        ))}
      {isCut && (
        <Button variant="soft" marginTop="6px" onClick={uncutSong}>
          Play it uncut
        </Button>
      )}
      <hr className="rule" />
      <div className="prop">
        <span />
        <span className="name">Fade in {curve('Fade in curve', music.fadeInCurve, 'fadeInCurve')}</span>
        <NumberField
          label="Fade in"
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
        <span className="name">Fade out {curve('Fade out curve', music.fadeOutCurve, 'fadeOutCurve')}</span>
        <NumberField
          label="Fade out"
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
