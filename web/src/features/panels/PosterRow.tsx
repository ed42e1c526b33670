import { formatClock } from '@core/time';
import { playhead } from '../../platform/clock';
import { edit } from '../../store/desk-store';
import { usePiece, useTimes } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { setPosterHere } from '../desk/commands';

/** Which frame stands for the piece where it does not move. */
export function PosterRow() {
  const { poster } = usePiece();
  const times = useTimes();
  const at = poster && times.timeOf(poster);
  return (
    <div className="poster-row" role="group" aria-label="Poster frame">
      <span className="name">Poster frame</span>
      {at === null ? (
        <span className="muted">automatic</span>
      ) : (
        <>
          <Button variant="quiet" className="mono" title="Go to it" onClick={() => playhead.set(at)}>
            {formatClock(at)}
          </Button>
          <Button variant="quiet" onClick={() => edit([{ type: 'piece.setPoster', poster: null }])}>
            Clear
          </Button>
        </>
      )}
      <Button variant="soft" aria-label="Poster frame here" onClick={setPosterHere}>
        Use this one
      </Button>
    </div>
  );
}
