import { footageOf } from '@core/piece';
import type { Layer, Piece } from '@core/piece';
import { framesOf } from '@core/scene';
import { stillAddress } from '../../platform/still-address';
import { useTimes } from '../../store/selectors';
import { timeToX, xToTime } from './time-axis';
import type { TimeAxis } from './time-axis';

/** Pixels of one picture in the strip. */
const STEP = 46;
/** A bar that is narrower shows none. */
const LEAST = 30;

/** Frames of footage along its bar, each as it is seen in the middle of its place; nothing for other layers. */
export function FilmStrip({ layer, media, axis }: { layer: Layer; media: Piece['media']; axis: TimeAxis }) {
  const times = useTimes();
  const shown = footageOf(media, layer);
  if (!shown) return null;
  const [start, end] = [times.timeOf(layer.start), times.timeOf(layer.end)];
  const [left, right] = [timeToX(axis, start), timeToX(axis, end)];
  if (right - left < LEAST) return null;
  const frameAt = framesOf(shown.layer, shown.ref.footage, times);
  // Only what is in sight, in places that do not move when the timeline is scrolled.
  const first = Math.max(0, Math.floor(-left / STEP));
  const last = Math.floor((Math.min(right, axis.width) - left - 1) / STEP);
  const places = Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => first + i);
  return (
    <span className="strip" aria-hidden="true">
      {places.map((place) => {
        const at = Math.min(end, xToTime(axis, left + (place + 0.5) * STEP));
        const frame = frameAt(at);
        return (
          frame !== null && (
            <img
              key={place}
              alt=""
              src={stillAddress(shown.ref, frame)}
              decoding="async"
              draggable={false}
              style={{ left: place * STEP, width: STEP }}
            />
          )
        );
      })}
    </span>
  );
}
