import { formatClock } from '@core/time';
import { playhead } from '../../platform/clock';
import { edit } from '../../store/desk-store';
import { usePiece, useTimes } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { setPosterHere } from '../desk/commands';
import { WORDS } from './words';

/** Which frame stands for the piece where it does not move. */
export function PosterRow() {
  const { poster } = usePiece();
  const times = useTimes();
  const at = poster && times.timeOf(poster);
  return (
    <div className="poster-row" role="group" aria-label={WORDS.posterFrame}>
      <span className="name">{WORDS.posterFrame}</span>
      {at === null ? (
        <span className="muted">{WORDS.automatic}</span>
      ) : (
        <>
          <Button variant="quiet" className="mono" title={WORDS.goToIt} onClick={() => playhead.set(at)}>
            {formatClock(at)}
          </Button>
          <Button variant="quiet" onClick={() => edit([{ type: 'piece.setPoster', poster: null }])}>
            {WORDS.clear}
          </Button>
        </>
      )}
      <Button variant="soft" aria-label={WORDS.posterFrameHere} onClick={setPosterHere}>
        {WORDS.useThisOne}
      </Button>
    </div>
  );
}
