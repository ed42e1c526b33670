import { Box, Dialog, Flex } from '@chakra-ui/react';
import type { HearingComparison, MovedMoment } from '@core/piece';
import { framesPerSecond } from '@core/time';
import { usePiece, useTimes } from '../../store/selectors';
import { DialogFrame } from '../../ui/DialogFrame';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

/** So many of what would move are named. */
const MOST_NAMED = 10;

/** What the beats of a song as heard anew would change in the piece, before they are taken. */
export function HearingCompared({
  compared,
  onTake,
  onClose,
}: {
  compared: HearingComparison;
  onTake: () => void;
  onClose: () => void;
}) {
  const { before, after, moved, fresh, gone, barsMoved, moments } = compared;
  const arrow = (a: string, b: string) => (a === b ? a : `${a} → ${b}`);
  const facts: [string, string][] = [
    [WORDS.tempo, `${arrow(before.bpm.toFixed(1), after.bpm.toFixed(1))} BPM`],
    [WORDS.beatsABar, arrow(String(before.beatsPerBar), String(after.beatsPerBar))],
    [WORDS.barsBegin, barsMoved ? WORDS.elsewhere : WORDS.whereTheyDid],
    [WORDS.beatsOfThePiece, WORDS.beatsChange(after.beats.length, moved.length, fresh.length, gone.length)],
  ];
  return (
    <DialogFrame label={WORDS.whatWouldChange} maxW="760px" width="94vw" onClose={onClose}>
      <Dialog.Title className="title">{WORDS.whatWouldChange}</Dialog.Title>
      <BeatRows compared={compared} />
      <Box as="dl" margin="12px 0" display="grid" gridTemplateColumns="auto 1fr" gap="4px 16px">
        {facts.map(([name, value]) => (
          <Box key={name} display="contents">
            <dt className="muted">{name}</dt>
            <Box as="dd" margin="0">
              {value}
            </Box>
          </Box>
        ))}
      </Box>
      <p>{moments.length === 0 ? WORDS.nothingSetMoves : WORDS.somethingMoves(moments.length)}</p>
      {moments.length > 0 && (
        <Box as="ul" margin="6px 0 0" padding="0" listStyleType="none">
          {moments.slice(0, MOST_NAMED).map((moment, i) => (
            <Moved key={i} moment={moment} />
          ))}
        </Box>
      )}
      {moments.length > MOST_NAMED && <p className="muted">{WORDS.andMore(moments.length - MOST_NAMED)}</p>}
      <Flex gap="8px" marginTop="14px">
        <Button variant="lamp" onClick={onTake}>
          {WORDS.takeTheNewBeats}
        </Button>
        <Button variant="quiet" onClick={onClose}>
          {WORDS.keepTheBeats}
        </Button>
      </Flex>
    </DialogFrame>
  );
}

function Moved({ moment: { layerId, where, before, after } }: { moment: MovedMoment }) {
  const { layers, frameRate } = usePiece();
  const name = layers.find((layer) => layer.id === layerId)?.name;
  const frames = Math.round((after - before) * framesPerSecond(frameRate));
  return (
    <Flex as="li" gap="10px" padding="2px 0">
      <Box flex="1" overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
        {name ? `${name}, ${where}` : where}
      </Box>
      <span className="mono">
        {before.toFixed(2)} → {after.toFixed(2)} s
      </span>
      <Box className="mono muted" width="90px" textAlign="right">
        {WORDS.byFrames(frames)}
      </Box>
    </Flex>
  );
}

const WIDTH = 700;
const ROW = 26;

/** The beats of before over those of now, on one line of time; bars are taller, what differs is lit. */
function BeatRows({ compared: { before, after, moved, fresh, gone } }: { compared: HearingComparison }) {
  const { end } = useTimes();
  const differs = new Set([...moved, ...fresh]);
  const lost = new Set(gone);
  const ticks = (beats: readonly number[], downbeats: readonly number[], lit: ReadonlySet<number>, base: number) => {
    const downs = new Set(downbeats);
    return beats.map((seconds) => {
      const x = (seconds / Math.max(end, 0.001)) * WIDTH;
      const height = downs.has(seconds) ? ROW - 6 : (ROW - 6) / 2;
      return (
        <line
          key={seconds}
          x1={x}
          x2={x}
          y1={base - height}
          y2={base}
          stroke={lit.has(seconds) ? 'var(--lamp)' : 'var(--muted)'}
          strokeWidth={lit.has(seconds) ? 1.6 : 1}
        />
      );
    });
  };
  return (
    <Flex gap="10px" marginTop="10px">
      <Flex direction="column" justify="space-around" className="muted" height={`${2 * ROW}px`}>
        <span>{WORDS.now}</span>
        <span>{WORDS.anew}</span>
      </Flex>
      <svg viewBox={`0 0 ${WIDTH} ${2 * ROW}`} width="100%" height={2 * ROW} preserveAspectRatio="none" aria-hidden>
        {ticks(before.beats, before.downbeats, lost, ROW - 2)}
        {ticks(after.beats, after.downbeats, differs, 2 * ROW - 2)}
      </svg>
    </Flex>
  );
}
