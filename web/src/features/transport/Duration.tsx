import { layersEnd, musicEnd } from '@core/piece';
import { formatClock, freeMoment, latticeMoment } from '@core/time';
import type { Seconds } from '@core/time';
import { edit, setView } from '../../store/desk-store';
import { useAnalysis, usePiece, useTimes } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { TimeEntry } from './TimeEntry';
import { WORDS } from './words';

/** A shorter piece is a slip of the finger; a longer one than an hour no host renders. */
const [MIN_SECONDS, MAX_SECONDS] = [0.1, 3600];
/** A typed end this near to the lattice is pinned to it, seconds: half a millisecond is what the display rounds to. */
const ON_LATTICE = 0.0006;

/** How long the piece is: typed, or taken from what is heard or seen last. */
export function Duration() {
  const piece = usePiece();
  const times = useTimes();
  const analysis = useAnalysis();
  const setEnd = (seconds: Seconds) => {
    if (seconds < MIN_SECONDS || seconds > MAX_SECONDS) return setView({ notice: WORDS.durationBounds });
    const onLattice = latticeMoment(seconds, times.grid);
    const end = Math.abs(times.timeOf(onLattice) - seconds) < ON_LATTICE ? onLattice : freeMoment(seconds);
    edit([{ type: 'piece.setEnd', end }]);
  };
  const ends = [
    [WORDS.endWithMusic, musicEnd(piece, analysis)],
    [WORDS.endWithLastLayer, layersEnd(piece, times)],
  ] as const;
  return (
    <TimeEntry
      label={WORDS.duration}
      hint={WORDS.durationHint}
      written={() => formatClock(times.end)}
      now={() => times.end}
      onTime={setEnd}
      more={(close) =>
        ends.map(([label, seconds]) => (
          <Button
            key={label}
            variant="soft"
            whiteSpace="nowrap"
            disabled={seconds === null || seconds < MIN_SECONDS}
            // The field keeps the caret until this is done.
            onPointerDown={(e) => e.preventDefault()}
            onClick={() => {
              if (seconds !== null) setEnd(seconds);
              close();
            }}
          >
            {label}
          </Button>
        ))
      }
    >
      {WORDS.ofDuration(formatClock(times.end))}
    </TimeEntry>
  );
}
