import { useEffect, useRef, useState } from 'react';
import type { PointerEvent as ReactPointerEvent } from 'react';
import type { Format } from '@core/piece';
import { newId } from '../../platform/ids';
import { playhead } from '../../platform/clock';
import type { LayerPlace } from '../../platform/preview-protocol';
import { edit, selectLayers, setView, useDesk } from '../../store/desk-store';
import { usePiece } from '../../store/selectors';
import { enterGroup, meantLayer, setPlaces as tellPlaces } from '../desk/group-commands';
import { isShape, useOpenPart } from '../paints/parts';
import { useCanvasView } from './canvas-view';
import { dragged, movable } from './drags';
import type { Drag } from './drags';
import { boundsOf, isInside, overlap } from './geometry';
import type { Bounds, Point } from './geometry';
import { GradientHandles } from './GradientHandles';
import { MotionPathHandles } from './MotionPathHandles';
import { onPlaces } from './preview-client';
import { Readout } from './Readout';
import { SelectionFrame } from './SelectionFrame';
import { ShapingHandles } from './ShapingHandles';
import { SnapGuides } from './SnapGuides';
import type { Guide } from './snapping';
import { setUnderPointer } from './under-pointer';
import { WORDS } from './words';

/** Screen pixels that a press may move and still be a click. */
const CLICK = 3;

const marqueeOf = (a: Point, b: Point): Bounds => boundsOf([a, b]);

/**
 * Selection and handles over the canvas: click to select (with Alt what lies below it), drag to move, over empty canvas
 * to draw a box about what is to be selected.
 */
export function Handles({ format, zoom }: { format: Format; zoom: number }) {
  const piece = usePiece();
  const selectedLayers = useDesk((s) => s.selectedLayers);
  const isPlaying = useDesk((s) => s.isPlaying);
  const editingText = useDesk((s) => s.editingText);
  const enteredGroup = useDesk((s) => s.enteredGroup);
  const shaping = useDesk((s) => s.shaping);
  const gridStep = useCanvasView((s) => (s.showsGrid ? s.gridStep : null));
  const [places, setPlaces] = useState<readonly LayerPlace[]>([]);
  const [guides, setGuides] = useState<readonly Guide[]>([]);
  const [readout, setReadout] = useState<{ at: Point; text: string } | null>(null);
  const [marquee, setMarquee] = useState<Bounds | null>(null);
  const drag = useRef<Drag | null>(null);
  /** What a click with Alt selects, unless it turns out to be a drag. */
  const through = useRef<LayerPlace | null>(null);
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
  /** Layers that draw something themselves, front to back. */
  const leaves = () =>
    [...places].reverse().filter((place) => {
      const kind = layerOf(place.layerId)?.kind;
      return kind !== 'group' && kind !== 'look';
    });
  /** What clicks at a point can mean, front to back: the outermost group in the one that is open, or the layer itself. */
  const allMeant = (isMet: (place: LayerPlace) => boolean): LayerPlace[] => {
    const found = new Set<LayerPlace>();
    for (const place of leaves()) {
      if (!isMet(place)) continue;
      const meant = layerOf(meantLayer(piece, place.layerId, enteredGroup));
      const itsPlace = meant && !meant.locked && places.find((p) => p.layerId === meant.id);
      if (itsPlace) found.add(itsPlace);
    }
    return [...found];
  };
  const meantAt = (at: Point) => allMeant((place) => isInside(place.corners, at));

  const begin = (e: ReactPointerEvent, next: Drag) => {
    drag.current = next;
    svg.current?.setPointerCapture(e.pointerId);
    e.preventDefault();
    e.stopPropagation();
  };

  const chosen = (e: ReactPointerEvent, at: Point): LayerPlace | undefined => {
    const hits = meantAt(at);
    // What is selected keeps the pointer, so that a layer below others can be dragged.
    const held = places.find(
      (place) =>
        selectedLayers.includes(place.layerId) && isInside(place.corners, at) && !layerOf(place.layerId)?.locked,
    );
    // A click with Alt is for the next one below what is selected, and round again.
    const now = hits.findIndex((place) => selectedLayers.includes(place.layerId));
    through.current = e.altKey && hits.length > 1 ? (hits[(now + 1) % hits.length] ?? null) : null;
    return e.shiftKey ? hits[0] : (held ?? hits[0]);
  };

  const onDown = (e: ReactPointerEvent) => {
    if (editingText) return;
    const at = toFormat(e);
    if (e.button === 2) {
      const hits = meantAt(at);
      setUnderPointer(hits.map((place) => place.layerId));
      // The menu that the other button opens is about what is pointed at.
      if (hits[0] && !hits.some((hit) => selectedLayers.includes(hit.layerId))) selectLayers([hits[0].layerId]);
    }
    if (e.button !== 0) return;
    const target = chosen(e, at);
    if (!target) {
      const before = e.shiftKey ? selectedLayers : [];
      selectLayers(before);
      return begin(e, { kind: 'marquee', from: at, before });
    }
    let ids: readonly string[] = selectedLayers;
    if (e.shiftKey)
      ids = selectedLayers.includes(target.layerId)
        ? selectedLayers.filter((id) => id !== target.layerId)
        : [...selectedLayers, target.layerId];
    else if (!selectedLayers.includes(target.layerId)) ids = [target.layerId];
    selectLayers(ids);
    const layers = movable(piece, format, ids);
    const corners = places.filter((p) => ids.includes(p.layerId)).flatMap((p) => p.corners);
    if (layers.length > 0 && corners.length > 0)
      begin(e, { kind: 'move', from: at, layers, box: boundsOf(corners), gesture: newId() });
  };

  const onMove = (e: ReactPointerEvent) => {
    const d = drag.current;
    if (!d) return;
    const at = toFormat(e);
    if (d.kind === 'marquee') {
      const box = marqueeOf(d.from, at);
      setMarquee(box);
      const met = allMeant((place) => overlap(boundsOf(place.corners), box)).map((place) => place.layerId);
      return selectLayers([...new Set([...d.before, ...met])]);
    }
    if (through.current && d.kind === 'move') {
      if (Math.hypot(at[0] - d.from[0], at[1] - d.from[1]) * zoom <= CLICK) return;
      through.current = null;
    }
    const keys = { shift: e.shiftKey, alt: e.altKey };
    const result = dragged(d, at, keys, { piece, format, places, zoom, gridStep });
    setGuides(result.guides);
    setReadout({ at, text: result.readout });
    edit(result.edits, d.gesture);
    playhead.set(playhead.seconds); // repaint at once
  };

  const onUp = () => {
    if (through.current) selectLayers([through.current.layerId]);
    through.current = null;
    drag.current = null;
    setGuides([]);
    setReadout(null);
    setMarquee(null);
  };

  const open = useOpenPart();
  const held = open.layerId === null ? undefined : layerOf(open.layerId);
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
        const [hit] = meantAt(at);
        const layer = hit && layerOf(hit.layerId);
        if (!layer) return;
        if (layer.kind === 'group')
          return enterGroup(
            layer.id,
            leaves().find((place) => isInside(place.corners, at)),
          );
        if (layer.kind === 'path') {
          selectLayers([layer.id]);
          return setView({ shaping: { layerId: layer.id, maskId: null } });
        }
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
        if (shaping?.layerId === layer.id)
          return (
            <ShapingHandles
              key={place.layerId}
              layer={layer}
              maskId={shaping.maskId}
              formId={shaping.formId}
              place={place}
              zoom={zoom}
              toFormat={toFormat}
            />
          );
        return (
          <g key={place.layerId}>
            <SelectionFrame
              layer={layer}
              place={place}
              format={format}
              zoom={zoom}
              toFormat={toFormat}
              onBegin={begin}
            />
            {isLead && shown.length === 1 && !layer.locked && (
              <MotionPathHandles layer={layer} format={format} zoom={zoom} />
            )}
          </g>
        );
      })}
      {open.layerId !== null && shown.length === 1 && held && isShape(held) && (
        <GradientHandles layer={held} part={open.part} place={shown[0]!} zoom={zoom} toFormat={toFormat} />
      )}
      <SnapGuides guides={guides} format={format} zoom={zoom} />
      {marquee && (
        <rect
          x={marquee.left}
          y={marquee.top}
          width={marquee.right - marquee.left}
          height={marquee.bottom - marquee.top}
          fill="var(--lamp)"
          fillOpacity={0.08}
          stroke="var(--lamp)"
          strokeWidth={1 / zoom}
          pointerEvents="none"
        />
      )}
      {readout && <Readout at={readout.at} text={readout.text} zoom={zoom} />}
    </svg>
  );
}
