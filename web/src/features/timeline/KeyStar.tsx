import { useRef } from 'react';
import type { Keyframe } from '@core/motion';
import { findKey, trackLabel } from '@core/piece';
import type { Edit, KeyRef, Layer, TrackId } from '@core/piece';
import { beatToBar, formatBarBeat, secondsToBeat, shiftMoment } from '@core/time';
import type { Moment } from '@core/time';
import { playhead } from '../../platform/clock';
import { edit, selectLayers, setView, useDesk } from '../../store/desk-store';
import { useTimes } from '../../store/selectors';
import { Star } from '../../ui/Star';
import { timeToX } from './time-axis';
import type { TimeAxis } from './time-axis';
import { snapDragged, useTimeDrag } from './use-time-drag';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

interface Props {
  readonly layer: Layer;
  readonly property: TrackId;
  readonly keyframe: Keyframe;
  readonly axis: TimeAxis;
  readonly y: number;
}

const sameRef = (a: KeyRef, b: KeyRef) => a.keyId === b.keyId && a.property === b.property && a.layerId === b.layerId;

/**
 * A keyframe on the timeline. Dragging moves all selected keyframes; the one held snaps, the others keep their
 * distance.
 */
export function KeyStar({ layer, property, keyframe, axis, y }: Props) {
  const times = useTimes();
  const selectedKeys = useDesk((s) => s.selectedKeys);
  const ref: KeyRef = { layerId: layer.id, property, keyId: keyframe.id };
  const isOn = selectedKeys.some((r) => sameRef(r, ref));
  const seconds = times.timeOf(keyframe.at);
  const held = useRef<{ refs: readonly KeyRef[]; moments: Map<string, Moment>; seconds: number } | null>(null);

  const drag = useTimeDrag(axis.pixelsPerSecond, {
    onStart: (e) => {
      const refs = e.shiftKey
        ? isOn
          ? selectedKeys.filter((r) => !sameRef(r, ref))
          : [...selectedKeys, ref]
        : isOn
          ? selectedKeys
          : [ref];
      setView({ selectedKeys: refs });
      if (!useDesk.getState().selectedLayers.includes(layer.id)) selectLayers([layer.id]);
      setView({ selectedKeys: refs });
      const moments = new Map<string, Moment>();
      const { piece } = useDesk.getState();
      for (const r of refs) {
        const key = piece && findKey(piece, r);
        if (key) moments.set(r.keyId, key.at);
      }
      held.current = { refs, moments, seconds };
    },
    onDrag: (delta, gesture, e) => {
      const h = held.current;
      const now = useDesk.getState().times;
      if (!h || !now || layer.locked) return;
      const own = snapDragged(Math.max(0, h.seconds + delta), axis.pixelsPerSecond, [], e.altKey);
      const moved = now.timeOf(own) - h.seconds;
      const moves = h.refs.flatMap((r) => {
        const at = h.moments.get(r.keyId);
        return at ? [{ ref: r, at: r.keyId === keyframe.id ? own : shiftMoment(at, moved, now.targets) }] : [];
      });
      edit([{ type: 'keys.place', moves } satisfies Edit], gesture);
    },
  });

  const bar = beatToBar(times.grid, secondsToBeat(times.grid, seconds));
  return (
    <Button
      unstyled
      className="star"
      aria-pressed={isOn}
      aria-label={WORDS.keyframeOfAt(
        trackLabel(layer, property),
        layer.name,
        formatBarBeat(bar),
        keyframe.at.kind === 'pinned' ? 'pinned' : 'free',
      )}
      data-key={keyframe.id}
      style={{ left: timeToX(axis, seconds), top: y }}
      {...drag}
      onDoubleClick={() => playhead.set(seconds)}
      onKeyDown={(e) => {
        if (e.key === 'Enter' || e.key === ' ') {
          e.preventDefault();
          e.stopPropagation();
          selectLayers([layer.id]);
          setView({ selectedKeys: [ref] });
        }
      }}
    >
      <Star pinned={keyframe.at.kind === 'pinned'} holds={keyframe.easing.type === 'hold'} />
    </Button>
  );
}
