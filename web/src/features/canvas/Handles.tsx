import { useEffect, useRef, useState } from 'react';
import type { PointerEvent as ReactPointerEvent } from 'react';
import type { Matrix } from '@core/geometry';
import { outermost } from '@core/piece';
import type { Edit, Format, Layer } from '@core/piece';
import { applyMatrix } from '@core/geometry';
import { newId } from '../../platform/ids';
import { playhead } from '../../platform/clock';
import type { LayerPlace } from '../../platform/preview-protocol';
import { edit, selectLayers, setView, useDesk } from '../../store/desk-store';
import { usePiece } from '../../store/selectors';
import { setValue, valueEdit, valueNow } from '../desk/commands';
import { enterGroup, meantLayer, setPlaces as tellPlaces } from '../desk/group-commands';
import { MotionPathHandles } from './MotionPathHandles';
import { placeNow } from './place-now';
import { boundsOf, isInside, middleOf, snapBox } from './geometry';
import type { Guide, Point } from './geometry';
import { onPlaces } from './preview-client';
import { WORDS } from './words';

type Drag =
  | {
      kind: 'move';
      from: Point;
      layers: {
        layer: Layer;
        position: [number, number];
        override: Layer['overrides'][string] | undefined;
        /** From pixels of the format to those in which the layer's position is given. */
        inward: Matrix;
      }[];
      box: ReturnType<typeof boundsOf>;
      gesture: string;
    }
  | {
      kind: 'scale';
      layer: Layer;
      pivot: Point;
      from: Point;
      scale: [number, number];
      gesture: string;
      override: Layer['overrides'][string] | undefined;
    }
  | { kind: 'rotate'; layer: Layer; pivot: Point; startAngle: number; rotation: number; gesture: string };

const SNAP_SCREEN_PX = 6;
const NO_OVERRIDE = { move: [0, 0] as [number, number], scale: 1, hidden: false };

/** Selection and handles over the canvas: click to select, drag to move, corners to scale, the stalk to rotate. */
export function Handles({ format, zoom }: { format: Format; zoom: number }) {
  const piece = usePiece();
  const selectedLayers = useDesk((s) => s.selectedLayers);
  const isPlaying = useDesk((s) => s.isPlaying);
  const editingText = useDesk((s) => s.editingText);
  const enteredGroup = useDesk((s) => s.enteredGroup);
  const [places, setPlaces] = useState<readonly LayerPlace[]>([]);
  const [guides, setGuides] = useState<readonly Guide[]>([]);
  const drag = useRef<Drag | null>(null);
  const svg = useRef<SVGSVGElement>(null);
  useEffect(() => {
    let newest: readonly LayerPlace[] = [];
    tellPlaces(() => newest);
    return onPlaces((next) => {
      newest = next;
      // While it plays no handle is shown, so none is drawn anew.
      if (!useDesk.getState().isPlaying) setPlaces(next);
    });
  }, []);

  const isLead = format.id === piece.leadFormatId;
  const toFormat = (e: { clientX: number; clientY: number }): Point => {
    const box = svg.current?.getBoundingClientRect();
    return box ? [(e.clientX - box.left) / zoom, (e.clientY - box.top) / zoom] : [0, 0];
  };
  const layerOf = (id: string) => piece.layers.find((l) => l.id === id);
  /** The front layer under a point that draws something itself. */
  const leafAt = (at: Point) =>
    [...places].reverse().find((place) => layerOf(place.layerId)?.kind !== 'group' && isInside(place.corners, at));
  /** What a click means: the outermost group in the one that is open, or the layer itself. */
  const meantAt = (at: Point) => {
    const hits = [...places].reverse().filter((place) => layerOf(place.layerId)?.kind !== 'group');
    for (const place of hits) {
      if (!isInside(place.corners, at)) continue;
      const meant = layerOf(meantLayer(piece, place.layerId, enteredGroup));
      if (meant && !meant.locked) return places.find((p) => p.layerId === meant.id);
    }
    return undefined;
  };
  /** What a layer turns and grows about: its position, or the middle of the place that its words fill. */
  const pivotOf = (layer: Layer, corners: readonly Point[]): Point => {
    if (layer.kind === 'text' && layer.content.area) return middleOf(corners);
    return placeNow(piece, layer, format).pivot;
  };

  const begin = (e: ReactPointerEvent, next: Drag) => {
    drag.current = next;
    svg.current?.setPointerCapture(e.pointerId);
    e.preventDefault();
    e.stopPropagation();
  };

  const onDown = (e: ReactPointerEvent) => {
    if (editingText) return;
    const at = toFormat(e);
    const hit = meantAt(at);
    // The menu that the other button opens is about what is pointed at.
    if (e.button === 2 && hit && !selectedLayers.includes(hit.layerId)) selectLayers([hit.layerId]);
    if (e.button !== 0) return;
    // What is selected keeps the pointer, so that a layer below others can be dragged.
    const held = places.find(
      (place) =>
        selectedLayers.includes(place.layerId) && isInside(place.corners, at) && !layerOf(place.layerId)?.locked,
    );
    const target = e.shiftKey ? hit : (held ?? hit);
    if (!target) return selectLayers([]);
    let ids: readonly string[] = selectedLayers;
    if (e.shiftKey)
      ids = selectedLayers.includes(target.layerId)
        ? selectedLayers.filter((id) => id !== target.layerId)
        : [...selectedLayers, target.layerId];
    else if (!selectedLayers.includes(target.layerId)) ids = [target.layerId];
    selectLayers(ids);
    // What is in a group that is moved goes with it.
    const layers = outermost(piece.layers, ids)
      .filter((l) => !l.locked)
      .map((layer) => ({
        layer,
        inward: placeNow(piece, layer, format).inward,
        position: valueNow(layer, 'position') as [number, number],
        override: layer.overrides[format.id],
      }));
    const corners = places.filter((p) => ids.includes(p.layerId)).flatMap((p) => p.corners);
    if (layers.length > 0 && corners.length > 0)
      begin(e, { kind: 'move', from: at, layers, box: boundsOf(corners), gesture: newId() });
  };

  const onMove = (e: ReactPointerEvent) => {
    const d = drag.current;
    if (!d) return;
    const at = toFormat(e);
    if (d.kind === 'move') {
      let [dx, dy] = [at[0] - d.from[0], at[1] - d.from[1]];
      if (e.shiftKey) [dx, dy] = Math.abs(dx) > Math.abs(dy) ? [dx, 0] : [0, dy];
      const others = places
        .filter((p) => !d.layers.some((l) => l.layer.id === p.layerId))
        .map((p) => boundsOf(p.corners));
      const lines = {
        x: [
          0,
          format.width / 2,
          format.width,
          format.width * 0.05,
          format.width * 0.95,
          ...others.flatMap((o) => [o.left, (o.left + o.right) / 2, o.right]),
        ],
        y: [
          0,
          format.height / 2,
          format.height,
          format.height * 0.05,
          format.height * 0.95,
          ...others.flatMap((o) => [o.top, (o.top + o.bottom) / 2, o.bottom]),
        ],
      };
      const snapped = e.altKey
        ? { dx: 0, dy: 0, guides: [] }
        : snapBox(
            { left: d.box.left + dx, right: d.box.right + dx, top: d.box.top + dy, bottom: d.box.bottom + dy },
            lines,
            SNAP_SCREEN_PX / zoom,
          );
      setGuides(snapped.guides);
      dx += snapped.dx;
      dy += snapped.dy;
      // One edit for all: a drag of a hundred layers is one change of the document a move.
      const edits = d.layers.map(({ layer, position, override, inward }): Edit => {
        // What is in a group is moved by its own measure.
        const [ix, iy] = applyMatrix(inward, dx, dy);
        if (isLead) return valueEdit(layer, 'position', [position[0] + ix, position[1] + iy]);
        const base = override ?? NO_OVERRIDE;
        return {
          type: 'layer.setOverride',
          id: layer.id,
          formatId: format.id,
          override: { ...base, move: [base.move[0] + ix, base.move[1] + iy] },
        };
      });
      edit(edits, d.gesture);
    } else if (d.kind === 'scale') {
      const before = Math.hypot(d.from[0] - d.pivot[0], d.from[1] - d.pivot[1]);
      const factor = before < 1 ? 1 : Math.hypot(at[0] - d.pivot[0], at[1] - d.pivot[1]) / before;
      if (!isLead) {
        const base = d.override ?? NO_OVERRIDE;
        edit(
          [
            {
              type: 'layer.setOverride',
              id: d.layer.id,
              formatId: format.id,
              override: { ...base, scale: Math.max(0.01, base.scale * factor) },
            },
          ],
          d.gesture,
        );
      } else setValue(d.layer, 'scale', [d.scale[0] * factor, d.scale[1] * factor], d.gesture);
    } else {
      const angle = (Math.atan2(at[1] - d.pivot[1], at[0] - d.pivot[0]) * 180) / Math.PI;
      const turned = d.rotation + angle - d.startAngle;
      setValue(
        d.layer,
        'rotation',
        e.shiftKey ? Math.round(turned / 15) * 15 : Math.round(turned * 10) / 10,
        d.gesture,
      );
    }
    playhead.set(playhead.seconds); // repaint at once
  };

  const onUp = () => {
    drag.current = null;
    setGuides([]);
  };

  const px = 1 / zoom;
  const shown = isPlaying ? [] : places.filter((p) => selectedLayers.includes(p.layerId));
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${format.width} ${format.height}`}
      className="over-canvas"
      onPointerDown={onDown}
      onPointerMove={onMove}
      onPointerUp={onUp}
      onPointerCancel={onUp}
      onDoubleClick={(e) => {
        const at = toFormat(e);
        const hit = meantAt(at);
        const layer = hit && layerOf(hit.layerId);
        if (!layer) return;
        if (layer.kind === 'group') return enterGroup(layer.id, leafAt(at));
        if (layer.kind !== 'text') return;
        selectLayers([layer.id]);
        setView({ editingText: layer.id, rung: 'words' });
      }}
      role="application"
      aria-label={WORDS.canvas}
    >
      {shown.map((place) => {
        const layer = layerOf(place.layerId);
        if (!layer || editingText === layer.id) return null;
        const [a, b] = [place.corners[0]!, place.corners[1]!]; // a box has four corners
        const top: Point = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
        const pivot = pivotOf(layer, place.corners);
        const centre = middleOf(place.corners);
        const up = Math.hypot(top[0] - centre[0], top[1] - centre[1]) || 1;
        const stalk: Point = [
          top[0] + ((top[0] - centre[0]) / up) * 26 * px,
          top[1] + ((top[1] - centre[1]) / up) * 26 * px,
        ];
        return (
          <g key={place.layerId}>
            <polygon
              points={place.corners.map((c) => c.join()).join(' ')}
              fill="none"
              stroke="var(--lamp)"
              strokeWidth={1.3 * px}
            />
            {!layer.locked && (
              <>
                <line x1={top[0]} y1={top[1]} x2={stalk[0]} y2={stalk[1]} stroke="var(--lamp)" strokeWidth={px} />
                {isLead && (
                  <circle
                    data-handle="rotate"
                    cx={stalk[0]}
                    cy={stalk[1]}
                    r={5 * px}
                    fill="#11151b"
                    stroke="var(--lamp)"
                    strokeWidth={1.5 * px}
                    cursor="grab"
                    onPointerDown={(e) =>
                      begin(e, {
                        kind: 'rotate',
                        layer,
                        pivot,
                        startAngle: (Math.atan2(toFormat(e)[1] - pivot[1], toFormat(e)[0] - pivot[0]) * 180) / Math.PI,
                        rotation: valueNow(layer, 'rotation') as number,
                        gesture: newId(),
                      })
                    }
                  />
                )}
                {place.corners.map((corner, i) => (
                  <circle
                    key={i}
                    data-handle={`corner-${i}`}
                    cx={corner[0]}
                    cy={corner[1]}
                    r={4.5 * px}
                    fill="#11151b"
                    stroke="var(--lamp)"
                    strokeWidth={1.5 * px}
                    cursor={i % 2 ? 'nesw-resize' : 'nwse-resize'}
                    onPointerDown={(e) =>
                      begin(e, {
                        kind: 'scale',
                        layer,
                        pivot,
                        from: toFormat(e),
                        scale: valueNow(layer, 'scale') as [number, number],
                        gesture: newId(),
                        override: layer.overrides[format.id],
                      })
                    }
                  />
                ))}
                <path
                  d={`M${pivot[0] - 6 * px} ${pivot[1]}h${12 * px}M${pivot[0]} ${pivot[1] - 6 * px}v${12 * px}`}
                  stroke="var(--lamp)"
                  strokeWidth={1.2 * px}
                />
              </>
            )}
            {isLead && shown.length === 1 && <MotionPathHandles layer={layer} format={format} zoom={zoom} />}
          </g>
        );
      })}
      {guides.map((guide, i) =>
        guide.axis === 'x' ? (
          <line key={i} x1={guide.at} x2={guide.at} y1={0} y2={format.height} stroke="var(--tide)" strokeWidth={px} />
        ) : (
          <line key={i} y1={guide.at} y2={guide.at} x1={0} x2={format.width} stroke="var(--tide)" strokeWidth={px} />
        ),
      )}
    </svg>
  );
}
