import { Box } from '@chakra-ui/react';
import { useRef } from 'react';
import type { KeyboardEvent, ReactNode } from 'react';
import { formatClock, freeMoment } from '@core/time';
import type { Seconds } from '@core/time';
import { edit, openDocument } from '../../store/desk-store';
import { useAnalysis, usePiece, useTimes } from '../../store/selectors';
import { fadeHandles } from './draw-music';
import { PARTS, RULER } from './staff';
import { timeToX } from './time-axis';
import type { TimeAxis } from './time-axis';
import { snapDragged, useTimeDrag } from './use-time-drag';
import { WORDS } from './words';

/** A piece is not dragged shorter than this. */
const MIN_SECONDS = 0.1;
const FLAG_WIDTH = 34;

interface HandleProps {
  readonly name: string;
  /** What dragging it does. */
  readonly hint: string;
  readonly seconds: Seconds;
  /** What is read out: a time or a length. */
  readonly said: string;
  readonly axis: TimeAxis;
  /** Pixels from the left edge of the timeline, and from its top. */
  readonly left: number;
  readonly top: number;
  readonly onTime: (seconds: Seconds, gesture: string, isFree: boolean) => void;
  readonly children: ReactNode;
}

/** Something on the music's staff that is dragged in time, or moved by frames with the arrow keys. */
function Handle({ name, hint, seconds, said, axis, left, top, onTime, children }: HandleProps) {
  const from = useRef(0);
  const drag = useTimeDrag(axis.pixelsPerSecond, {
    onStart: () => {
      from.current = seconds;
    },
    onDrag: (delta, gesture, e) => onTime(from.current + delta, gesture, e.altKey),
  });
  const onKey = (e: KeyboardEvent): void => {
    const o = openDocument();
    const step = e.key === 'ArrowLeft' ? -1 : e.key === 'ArrowRight' ? 1 : 0;
    if (!o || step === 0) return;
    e.preventDefault();
    e.stopPropagation();
    const frame = o.piece.frameRate.den / o.piece.frameRate.num;
    onTime(seconds + step * frame * (e.shiftKey ? 10 : 1), `key ${name}`, true);
  };
  return (
    <Box
      role="slider"
      tabIndex={0}
      aria-label={name}
      aria-valuenow={Math.round(seconds * 1000) / 1000}
      aria-valuetext={said}
      title={`${name}: ${hint}`}
      position="absolute"
      zIndex="6"
      cursor="ew-resize"
      touchAction="none"
      style={{ left, top }}
      {...drag}
      onKeyDown={onKey}
    >
      {children}
    </Box>
  );
}

/** A ramp with a round grip at its upper end: a fade is a length, not an edge to trim. */
const FadeGrip = ({ isOut }: { isOut: boolean }) => (
  <svg width="18" height="14" viewBox="0 0 18 14" aria-hidden="true">
    <path d={isOut ? 'M9 4 L17 13 H9 Z' : 'M9 4 L1 13 H9 Z'} fill="var(--lamp)" opacity="0.35" />
    <circle cx="9" cy="5" r="3.6" fill="var(--lamp)" stroke="var(--ground)" strokeWidth="1.2" />
  </svg>
);

/** Handles of the fades on the waveform, and of the end of the piece on the ruler. @param names - width of the names. */
export function EdgeHandles({ axis, names }: { axis: TimeAxis; names: number }) {
  const piece = usePiece();
  const times = useTimes();
  const analysis = useAnalysis();
  const { music } = piece;
  const fades = music && analysis ? fadeHandles(music, analysis.duration, times.end) : null;
  const setFade = (side: 'fadeIn' | 'fadeOut', seconds: Seconds, gesture: string): void => {
    if (!music || !fades) return;
    const wanted = side === 'fadeIn' ? seconds - fades.start : fades.finish - seconds;
    const length = Math.max(0, Math.min(fades.finish - fades.start, wanted));
    edit([{ type: 'music.set', music: { ...music, [side]: Math.round(length * 1000) / 1000 } }], gesture);
  };
  const setEnd = (seconds: Seconds, gesture: string, isFree: boolean): void => {
    const wanted = Math.max(MIN_SECONDS, seconds);
    // An end that is moved by keys, or with Alt, keeps to frames: it does not jump to the beat.
    const end = isFree ? freeMoment(wanted) : snapDragged(wanted, axis.pixelsPerSecond, [], false, []);
    edit([{ type: 'piece.setEnd', end }], gesture);
  };
  const isShown = (x: number): boolean => x >= -8 && x <= axis.width + 8;
  const endX = timeToX(axis, times.end);
  // The flag stands outside the piece where there is room.
  const isLeft = endX + FLAG_WIDTH > axis.width;
  return (
    <>
      {music &&
        fades &&
        (['fadeIn', 'fadeOut'] as const).map((side) => {
          const at = side === 'fadeIn' ? fades.rise : fades.fall;
          const x = timeToX(axis, at);
          return (
            isShown(x) && (
              <Handle
                key={side}
                name={side === 'fadeIn' ? WORDS.fadeIn : WORDS.fadeOut}
                hint={WORDS.fadeHint}
                seconds={at}
                said={WORDS.seconds(music[side].toFixed(2))}
                axis={axis}
                left={names + x - 9}
                top={RULER + PARTS}
                onTime={(seconds, gesture) => setFade(side, seconds, gesture)}
              >
                <FadeGrip isOut={side === 'fadeOut'} />
              </Handle>
            )
          );
        })}
      {isShown(endX) && (
        <Handle
          name={WORDS.end}
          hint={WORDS.endHint}
          seconds={times.end}
          said={formatClock(times.end)}
          axis={axis}
          left={names + endX - (isLeft ? FLAG_WIDTH : 0)}
          top={0}
          onTime={setEnd}
        >
          <Box
            width={`${FLAG_WIDTH}px`}
            height="15px"
            fontSize="10.5px"
            lineHeight="15px"
            textAlign="center"
            color="var(--ground)"
            background="var(--lamp)"
            borderRadius={isLeft ? '3px 0 0 3px' : '0 3px 3px 0'}
            borderRight={isLeft ? '2px solid var(--text)' : undefined}
            borderLeft={isLeft ? undefined : '2px solid var(--text)'}
          >
            {WORDS.end}
          </Box>
        </Handle>
      )}
    </>
  );
}
