import { Flex, Span } from '@chakra-ui/react';
import { ChevronLeft, ChevronRight, Gauge, Magnet, Pause, Play, Repeat, SkipBack, SkipForward } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { beatToBar, formatClock, frameRateLabel, secondsToBeat, tempoAt } from '@core/time';
import { playhead } from '../../platform/clock';
import { setView, useDesk } from '../../store/desk-store';
import { usePiece, useTimes } from '../../store/selectors';
import { previewStats } from '../canvas/preview-client';
import { step } from '../desk/commands';
import { togglePlay } from '../desk/play-commands';
import { Choice } from '../../ui/Choice';
import { Button } from '../../ui/Button';
import { Duration } from './Duration';
import { TimeEntry } from './TimeEntry';
import { WORDS } from './words';

const STRENGTHS = { '4': 'Weak', '7': 'Medium', '18': 'Strong' } as const;
const DIVISIONS = {
  '1': 'Beats',
  '0.5': WORDS.halfBeats,
  '0.25': WORDS.quarterBeats,
  '0.3333333333333333': 'Triplets',
} as const;

/** The time of the playhead; how it moves goes past React. */
function Clock() {
  const clock = useRef<HTMLSpanElement>(null);
  useEffect(
    () =>
      playhead.subscribe((seconds) => {
        if (clock.current) clock.current.textContent = formatClock(seconds);
      }),
    [],
  );
  return <span ref={clock}>{formatClock(playhead.seconds)}</span>;
}

/** Where the playhead is, in bars and beats first, and what moves it. */
export function Transport() {
  const piece = usePiece();
  const times = useTimes();
  const { isPlaying, loop, isSnapping, division, snapPixels } = useDesk();
  const bar = useRef<HTMLSpanElement>(null);
  const beat = useRef<HTMLSpanElement>(null);
  const tempo = useRef<HTMLSpanElement>(null);
  const meter = useRef<HTMLSpanElement>(null);
  const [showsRate, setShowsRate] = useState(false);
  const [rate, setRate] = useState('');

  useEffect(
    () =>
      playhead.subscribe((seconds) => {
        const position = beatToBar(times.grid, secondsToBeat(times.grid, seconds + 1e-6));
        if (bar.current) bar.current.textContent = String(position.bar);
        if (meter.current) meter.current.textContent = String(position.beatsPerBar);
        if (beat.current) beat.current.textContent = String(Math.floor(position.beat));
        if (tempo.current) tempo.current.textContent = tempoAt(times.grid, seconds).toFixed(1);
      }),
    [times],
  );
  useEffect(() => {
    if (!showsRate) return;
    const timer = setInterval(() => {
      const s = previewStats();
      setRate(
        WORDS.ofFpsMs(
          s.shown.toFixed(1),
          frameRateLabel(piece.frameRate),
          s.milliseconds.toFixed(0),
          Math.round(s.scale * 100),
        ),
      );
    }, 300);
    return () => clearInterval(timer);
  }, [showsRate, piece.frameRate]);

  return (
    <div className="transport" role="group" aria-label={WORDS.transport}>
      <Flex alignItems="baseline" gap="14px" minWidth="0" overflow="hidden">
        <span className="where mono" aria-label={WORDS.barAndBeat}>
          <span ref={bar}>1</span> <small>{WORDS.bar}</small> <span ref={beat}>1</span> <small>{WORDS.beat}</small>
        </span>
        <Flex className="times" alignItems="baseline" gap="6px">
          <TimeEntry
            label={WORDS.time}
            hint={WORDS.timeHint}
            written={() => formatClock(playhead.seconds)}
            now={() => playhead.seconds}
            onTime={(seconds) => playhead.set(Math.max(0, Math.min(seconds, times.end)))}
          >
            <Clock />
          </TimeEntry>
          <Duration />
        </Flex>
      </Flex>
      <Flex alignItems="center" gap="2px">
        <Button variant="quiet" aria-label={WORDS.aBarBack} onClick={() => step('bar', -1)}>
          <SkipBack size={17} />
        </Button>
        <Button variant="quiet" aria-label={WORDS.aFrameBack} onClick={() => step('frame', -1)}>
          <ChevronLeft size={18} />
        </Button>
        <Button
          variant="bare"
          className="play"
          aria-label={isPlaying ? WORDS.stop : WORDS.play}
          onClick={() => void togglePlay()}
        >
          {isPlaying ? (
            <Pause size={17} fill="currentColor" />
          ) : (
            <Play size={17} fill="currentColor" className="play-triangle" />
          )}
        </Button>
        <Button variant="quiet" aria-label={WORDS.aFrameOn} onClick={() => step('frame', 1)}>
          <ChevronRight size={18} />
        </Button>
        <Button variant="quiet" aria-label={WORDS.aBarOn} onClick={() => step('bar', 1)}>
          <SkipForward size={17} />
        </Button>
      </Flex>
      <Flex alignItems="center" gap="2px" minWidth="0" overflow="hidden">
        <Button
          variant="quiet"
          marginLeft="auto"
          aria-pressed={isSnapping}
          aria-label={WORDS.snapToTheBeat}
          onClick={() => setView({ isSnapping: !isSnapping })}
        >
          <Magnet size={16} />
        </Button>
        <Choice
          variant="quiet"
          className="snap-step"
          aria-label={WORDS.snappingStep}
          value={String(division)}
          onChange={(e) =>
            setView(
              e.target.value.startsWith('strength-')
                ? { snapPixels: Number(e.target.value.slice(9)) }
                : { division: Number(e.target.value) },
            )
          }
        >
          <optgroup label={WORDS.snapTo}>
            {Object.entries(DIVISIONS).map(([value, label]) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
          </optgroup>
          <optgroup label={WORDS.howStrongly}>
            {Object.entries(STRENGTHS).map(([value, label]) => (
              <option key={value} value={`strength-${value}`}>
                {Number(value) === snapPixels ? `✓ ${label}` : label}
              </option>
            ))}
          </optgroup>
        </Choice>
        <Button
          variant="quiet"
          aria-pressed={loop !== null}
          aria-label={WORDS.loop}
          onClick={() => setView({ loop: loop ? null : { from: 0, to: times.end } })}
        >
          <Repeat size={16} />
        </Button>
        <Button
          variant="quiet"
          aria-pressed={showsRate}
          aria-label={WORDS.showThePreviewRate}
          onClick={() => setShowsRate(!showsRate)}
        >
          <Gauge size={16} />
          {showsRate && (
            <span className="mono" data-testid="preview-rate">
              {rate}
            </span>
          )}
        </Button>
        <span className="tempo mono">
          <Span color="tide">
            <span ref={tempo} />
            {WORDS.bpm}
          </Span>{' '}
          <span className="muted">
            <span ref={meter} />
            /4<span className="rate">{WORDS.fps(frameRateLabel(piece.frameRate))}</span>
          </span>
        </span>
      </Flex>
    </div>
  );
}
