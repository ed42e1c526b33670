import { Box, Span } from '@chakra-ui/react';
import { useDraggable } from '@dnd-kit/core';
import { ChevronDown, ChevronRight, Eye, EyeOff, Folder, FolderOpen, Lock, LockOpen } from 'lucide-react';
import { memo, useMemo, useRef, useState } from 'react';
import { animatedTracks, trackLabel, trimEdit, EMPTY_WARDROBE, worn } from '@core/piece';
import type { Piece } from '@core/piece';
import type { Moment } from '@core/time';
import { edit, selectLayers, setView, useDesk } from '../../store/desk-store';
import { useTimes } from '../../store/selectors';
import { toggleFold } from '../desk/group-commands';
import { barShape } from './bar-shape';
import { FilmStrip } from './FilmStrip';
import { KeyStar } from './KeyStar';
import { onDesk } from '../layers/layer-kinds';
import { inkOn, layerColour } from './layer-colour';
import { INDENT, PROPERTY_ROW, ROW, rowHeight } from './row-size';
import { timeToX } from './time-axis';
import type { TimeAxis } from './time-axis';
import type { TreeRow } from './tree-rows';
import { snapDragged, useTimeDrag } from './use-time-drag';
import { Button } from '../../ui/Button';
import { NameField } from '../../ui/NameField';
import { WORDS } from './words';

/** One layer on the timeline: its name, its bar, its stars. */
export const LayerRow = memo(function LayerRow({
  layer,
  top,
  depth,
  isOpen,
  isFolded,
  ownGestures,
  media,
  axis,
  isDropTarget,
}: Omit<TreeRow, 'height'> & {
  ownGestures: Piece['gestures'];
  media: Piece['media'];
  axis: TimeAxis;
  isDropTarget: boolean;
}) {
  const isGroup = layer.kind === 'group';
  // What wears a role looks otherwise when the wardrobe does.
  const wardrobe = useDesk((state) => state.piece?.wardrobe ?? EMPTY_WARDROBE);
  const drag = useDraggable({ id: layer.id });
  const times = useTimes();
  const isOn = useDesk((s) => s.selectedLayers.includes(layer.id));
  const [renaming, setRenaming] = useState(false);
  const held = useRef<{ start: number; end: number; moved: number; startMoment: Moment } | null>(null);
  const start = times.timeOf(layer.start);
  const end = times.timeOf(layer.end);
  const colour = layerColour(layer);
  const shape = useMemo(() => barShape(layer, times, ownGestures), [layer, times, ownGestures]);
  const tracks = animatedTracks(layer);

  const hold = (e: { shiftKey: boolean }) => {
    const { selectedLayers } = useDesk.getState();
    if (e.shiftKey) selectLayers(isOn ? selectedLayers.filter((id) => id !== layer.id) : [...selectedLayers, layer.id]);
    else if (!isOn) selectLayers([layer.id]);
    if (!e.shiftKey) setView({ selectedKeys: [] });
    held.current = { start, end, moved: 0, startMoment: layer.start };
  };
  const move = useTimeDrag(axis.pixelsPerSecond, {
    onStart: hold,
    onDrag: (delta, gesture, e) => {
      const h = held.current;
      const now = useDesk.getState();
      if (!h || !now.times) return;
      const ids = [layer.id, ...now.selectedLayers.filter((id) => id !== layer.id)];
      const at = snapDragged(h.start + delta, axis.pixelsPerSecond, ids, e.altKey);
      const wanted = now.times.timeOf(at) - h.start;
      // The edit moves from where the layer stands now, so only the difference to the last step is sent.
      const current = now.piece?.layers.find((l) => l.id === layer.id);
      const by = current ? h.start + wanted - now.times.timeOf(current.start) : 0;
      if (Math.abs(by) > 1e-9) edit([{ type: 'layer.move', ids, seconds: by, start: at }], gesture);
    },
  });
  const edge = (side: 'start' | 'end') => ({
    onStart: hold,
    onDrag: (delta: number, gesture: string, e: { altKey: boolean }) => {
      const h = held.current;
      const now = useDesk.getState().times;
      if (!h || !now) return;
      const at = snapDragged(h[side] + delta, axis.pixelsPerSecond, [layer.id], e.altKey);
      const seconds = now.timeOf(at);
      if (side === 'start' ? seconds < h.end - 0.01 : seconds > h.start + 0.01)
        edit([trimEdit(layer, { [side]: at })], gesture);
    },
  });
  const startEdge = useTimeDrag(axis.pixelsPerSecond, edge('start'));
  const endEdge = useTimeDrag(axis.pixelsPerSecond, edge('end'));

  const left = timeToX(axis, start);
  const width = Math.max(3, (end - start) * axis.pixelsPerSecond);
  const captionLeft = Math.max(14, 14 - left);
  return (
    <Box
      className={`row${isOn ? ' selected' : ''}${isDropTarget ? ' drop' : ''}`}
      opacity={layer.hidden ? '0.5' : '1'}
      style={{ top, height: rowHeight(layer, isOpen) }}
      data-layer={layer.id}
      role="group"
      aria-label={layer.name}
      data-depth={depth}
    >
      <div className="row-name" style={{ height: ROW, paddingLeft: 6 + depth * INDENT }}>
        {isGroup && (
          <Button
            variant="quiet"
            hasTip={false}
            padding="0"
            aria-label={isFolded ? WORDS.showWhatIsIn(layer.name) : WORDS.fold(layer.name)}
            aria-expanded={!isFolded}
            onClick={() => toggleFold(layer.id)}
          >
            {isFolded ? <Folder size={15} /> : <FolderOpen size={15} />}
          </Button>
        )}
        <Button
          variant="quiet"
          hasTip={false}
          padding="0"
          visibility={tracks.length === 0 ? 'hidden' : undefined}
          aria-label={isOpen ? WORDS.closeTheKeyframesOf(layer.name) : WORDS.openTheKeyframesOf(layer.name)}
          onClick={() =>
            setView({
              openLayers: isOpen
                ? useDesk.getState().openLayers.filter((id) => id !== layer.id)
                : [...useDesk.getState().openLayers, layer.id],
            })
          }
        >
          {isOpen ? <ChevronDown size={14} /> : <ChevronRight size={14} />}
        </Button>
        {onDesk(layer).icon(worn(layer, wardrobe), media)}
        {renaming ? (
          <NameField
            label={WORDS.layerName}
            name={layer.name}
            onDone={(name) => {
              setRenaming(false);
              if (name) edit([{ type: 'layer.rename', id: layer.id, name }]);
            }}
          />
        ) : (
          <Button
            unstyled
            className="label"
            title={layer.name}
            ref={drag.setNodeRef}
            {...drag.listeners}
            aria-describedby={drag.attributes['aria-describedby']}
            onClick={(e) => hold(e)}
            onDoubleClick={() => setRenaming(true)}
            onKeyDown={(e) => e.key === 'F2' && setRenaming(true)}
          >
            {layer.name}
          </Button>
        )}
        <span className={`icons${layer.hidden || layer.locked ? ' held' : ''}`}>
          <Button
            unstyled
            aria-label={layer.hidden ? WORDS.show(layer.name) : WORDS.hide(layer.name)}
            aria-pressed={layer.hidden}
            onClick={() => edit([{ type: 'layer.setFlags', ids: [layer.id], hidden: !layer.hidden }])}
          >
            {layer.hidden ? <EyeOff size={14} /> : <Eye size={14} />}
          </Button>
          <Button
            unstyled
            aria-label={layer.locked ? WORDS.unlock(layer.name) : WORDS.lock(layer.name)}
            aria-pressed={layer.locked}
            onClick={() => edit([{ type: 'layer.setFlags', ids: [layer.id], locked: !layer.locked }])}
          >
            {layer.locked ? <Lock size={14} /> : <LockOpen size={14} />}
          </Button>
        </span>
      </div>
      <div className="track">
        <Box
          className="bar"
          data-bar={layer.id}
          bottom="auto"
          style={{ left, width, height: ROW - 6 }}
          {...move}
          role="slider"
          tabIndex={0}
          aria-label={WORDS.spanOf(layer.name)}
          aria-valuenow={start}
          aria-valuetext={WORDS.fromToSeconds(start.toFixed(2), end.toFixed(2))}
        >
          <svg className="shape" viewBox="0 0 1000 100" preserveAspectRatio="none" aria-hidden="true">
            <rect width="1000" height="100" rx="0" fill={colour} opacity="0.3" />
            <path d={shape} fill={colour} />
            {isOn && (
              <rect
                width="1000"
                height="100"
                fill="none"
                stroke="var(--lamp)"
                strokeWidth="1.5"
                vectorEffect="non-scaling-stroke"
              />
            )}
          </svg>
          <FilmStrip layer={layer} media={media} axis={axis} />
          <span
            className="caption"
            style={{ color: inkOn(colour), left: captionLeft, textShadow: `0 0 3px ${colour}, 0 0 3px ${colour}` }}
          >
            {layer.name}
          </span>
          <Span className="edge" left="-2px" data-edge="start" {...startEdge} />
          <Span className="edge" right="-2px" data-edge="end" {...endEdge} />
        </Box>
        {!isOpen &&
          tracks.flatMap(([property, track]) =>
            track.keyframes.map((key) => (
              <KeyStar key={key.id} layer={layer} property={property} keyframe={key} axis={axis} y={ROW - 9} />
            )),
          )}
        {isOpen &&
          tracks.map(([property, track], i) =>
            track.keyframes.map((key) => (
              <KeyStar
                key={key.id}
                layer={layer}
                property={property}
                keyframe={key}
                axis={axis}
                y={ROW + (i + 0.5) * PROPERTY_ROW}
              />
            )),
          )}
      </div>
      {isOpen &&
        tracks.map(([property, track], i) => (
          <Button
            key={property}
            variant="quiet"
            position="absolute"
            left="48px"
            fontSize="12px"
            style={{ top: ROW + i * PROPERTY_ROW, height: PROPERTY_ROW }}
            onClick={() =>
              setView({ selectedKeys: track.keyframes.map((key) => ({ layerId: layer.id, property, keyId: key.id })) })
            }
          >
            {trackLabel(layer, property)}
          </Button>
        ))}
    </Box>
  );
});
