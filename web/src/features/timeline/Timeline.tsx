import { Box } from '@chakra-ui/react';
import { DndContext } from '@dnd-kit/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { PointerEvent as ReactPointerEvent } from 'react';
import type { GridCorrection, KeyRef } from '@core/piece';
import { animatedTracks, phraseLayers, songOf, songToPiece } from '@core/piece';
import { beatToBar, beatToSeconds, formatBarBeat, secondsToBeat } from '@core/time';
import { playhead } from '../../platform/clock';
import { newId } from '../../platform/ids';
import { selectLayers, setView, useDesk } from '../../store/desk-store';
import { useAnalysis, usePiece, useTimes } from '../../store/selectors';
import { scrubTo } from '../desk/play-commands';
import { dragBeat } from '../music/beat-commands';
import { drawLattice } from './draw-lattice';
import { EdgeHandles } from './EdgeHandles';
import { beatLine } from './beat-line';
import { MUSIC_HEIGHT, PARTS, RULER, WAVE } from './staff';
import { LANE, PhraseLane } from './PhraseLane';
import { LayerRow } from './LayerRow';
import { INDENT, PROPERTY_ROW, ROW } from './row-size';
import { treeRows } from './tree-rows';
import { useRowDrag } from './use-row-drag';
import { clampScroll, fitAxis, timeToX, xToTime, zoomAxis } from './time-axis';
import type { TimeAxis } from './time-axis';
import { snapDragged } from './use-time-drag';
import { WORDS } from './words';

const NAMES = 168;

type Drag =
  | { kind: 'beat'; at: number; grab: number; before: GridCorrection['moves']; gesture: string }
  | { kind: 'scrub' }
  | { kind: 'loop'; from: number }
  | { kind: 'box'; x: number; y: number; add: boolean };

/** The timeline reads like sheet music: the music is the top staff, its lattice runs down through every layer. */
export function Timeline() {
  const piece = usePiece();
  const times = useTimes();
  const analysis = useAnalysis();
  const loop = useDesk((s) => s.loop);
  const openLayers = useDesk((s) => s.openLayers);
  const foldedGroups = useDesk((s) => s.foldedGroups);
  const showsCurves = useDesk((s) => s.showsCurves);
  const isMovingBeats = useDesk((s) => s.isMovingBeats);
  const holder = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const head = useRef<HTMLDivElement>(null);
  const rows = useRef<HTMLDivElement>(null);
  const [height, setHeight] = useState(300);
  const [axis, setAxis] = useState<TimeAxis>({ scroll: 0, pixelsPerSecond: 60, width: 800 });
  const [box, setBox] = useState<{ left: number; top: number; width: number; height: number } | null>(null);
  const drag = useRef<Drag | null>(null);
  const isFitted = useRef<string | null>(null);
  const song = songOf(piece);

  useLayoutEffect(() => {
    const element = holder.current;
    if (!element) return;
    const measure = () => {
      setHeight(element.clientHeight);
      setAxis((a) => ({ ...a, width: Math.max(100, element.clientWidth - NAMES) }));
    };
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    measure();
    return () => observer.disconnect();
  }, []);

  // A piece is first seen whole, and again when it gets another song; after that the view is the person's.
  const fitKey = `${piece.id}/${axis.width > 100}/${analysis !== null || !piece.music}/${piece.music?.mediaId ?? ''}`;
  useEffect(() => {
    if (isFitted.current === fitKey) return;
    isFitted.current = fitKey;
    setAxis((a) => fitAxis(a.width, 0, times.end));
  }, [fitKey, times.end]);

  const { music, markers } = piece;
  const [themeTick, setThemeTick] = useState(0);
  useEffect(() => {
    const observer = new MutationObserver(() => setThemeTick((n) => n + 1));
    observer.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] });
    void document.fonts.ready.then(() => setThemeTick((n) => n + 1));
    return () => observer.disconnect();
  }, []);
  useEffect(() => {
    if (canvas.current)
      drawLattice(canvas.current, {
        axis,
        piece: { music, markers },
        times,
        analysis,
        loop,
        height,
        names: NAMES,
        showsCurves,
        isMovingBeats,
      });
  }, [axis, music, markers, times, analysis, loop, height, themeTick, showsCurves, isMovingBeats]);
  useEffect(
    () =>
      playhead.subscribe((seconds) => {
        const x = timeToX(axis, seconds);
        if (!head.current) return;
        head.current.style.transform = `translateX(${NAMES + x}px)`;
        head.current.style.visibility = x < -1 || x > axis.width + 1 ? 'hidden' : 'visible';
      }),
    [axis],
  );

  // Wheel: sideways moves in time, with Ctrl zooms about the pointer. React's own wheel listener is passive.
  const end = times.end;
  useEffect(() => {
    const element = holder.current;
    if (!element) return;
    const onWheel = (e: WheelEvent) => {
      const x = e.clientX - element.getBoundingClientRect().left - NAMES;
      if (e.ctrlKey || e.metaKey) {
        e.preventDefault();
        setAxis((a) => zoomAxis(a, Math.exp(-e.deltaY * 0.0025), x, end));
      } else if (e.shiftKey || Math.abs(e.deltaX) > Math.abs(e.deltaY)) {
        e.preventDefault();
        setAxis((a) => ({
          ...a,
          scroll: clampScroll(a.scroll + (e.deltaX + (e.shiftKey ? e.deltaY : 0)) / a.pixelsPerSecond, a, end),
        }));
      }
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  }, [end]);

  const phrases = useMemo(() => phraseLayers(piece, times), [piece, times]);
  const rowsTop = MUSIC_HEIGHT + (phrases.length > 0 ? LANE : 0);
  const layout = useMemo(
    () => treeRows(piece.layers, openLayers, foldedGroups),
    [piece.layers, openLayers, foldedGroups],
  );
  const { drop, context } = useRowDrag(
    layout,
    (clientY) => clientY - (rows.current?.getBoundingClientRect().top ?? 0) + (rows.current?.scrollTop ?? 0),
  );
  const window = useVirtualizer({
    count: layout.length,
    getScrollElement: () => rows.current,
    estimateSize: (index) => layout[index]!.height, // index < count
    getItemKey: (index) => layout[index]!.layer.id,
    overscan: 3,
    // Rows are there at once, before the timeline is measured.
    initialRect: { width: 0, height },
  });
  useLayoutEffect(() => window.measure(), [window, layout]);

  const at = (e: { clientX: number; clientY: number }) => {
    const rect = holder.current?.getBoundingClientRect();
    return { x: e.clientX - (rect?.left ?? 0) - NAMES, y: e.clientY - (rect?.top ?? 0) };
  };
  /** The beat whose handle lies under a pixel. */
  const grabbedBeat = (x: number): number | null => {
    const at = beatToSeconds(times.grid, Math.round(secondsToBeat(times.grid, xToTime(axis, x))));
    return Math.abs(timeToX(axis, at) - x) <= 7 ? at : null;
  };
  const onDown = (e: ReactPointerEvent) => {
    if (e.button !== 0) return;
    const { x, y } = at(e);
    if (x < 0) return;
    holder.current?.setPointerCapture(e.pointerId);
    holder.current?.focus({ preventScroll: true });
    if (y < MUSIC_HEIGHT) {
      if (isMovingBeats && y > RULER && piece.music && grabbedBeat(x) !== null) {
        const at = grabbedBeat(x)!; // asked just before
        drag.current = {
          kind: 'beat',
          at,
          grab: xToTime(axis, x) - at,
          before: piece.music.correction.moves,
          gesture: `beat-${newId()}`,
        };
      } else if (e.shiftKey)
        drag.current = {
          kind: 'loop',
          from: times.timeOf(snapDragged(xToTime(axis, x), axis.pixelsPerSecond, [], e.altKey)),
        };
      else {
        drag.current = { kind: 'scrub' };
        scrubTo(snapToRuler(x, e.altKey));
      }
    } else {
      drag.current = { kind: 'box', x, y, add: e.shiftKey };
      if (!e.shiftKey) {
        selectLayers([]);
        setView({ selectedKeys: [] });
      }
    }
  };
  const snapToRuler = (x: number, isFree: boolean) =>
    isFree
      ? xToTime(axis, x)
      : times.timeOf(snapDragged(Math.max(0, xToTime(axis, x)), axis.pixelsPerSecond, [], false));
  const onMove = (e: ReactPointerEvent) => {
    const d = drag.current;
    if (!d) return;
    const { x, y } = at(e);
    if (d.kind === 'beat') dragBeat(d.at, xToTime(axis, x) - d.grab, d.before, d.gesture);
    else if (d.kind === 'scrub') scrubTo(snapToRuler(x, e.altKey));
    else if (d.kind === 'loop') {
      const to = times.timeOf(snapDragged(xToTime(axis, x), axis.pixelsPerSecond, [], e.altKey));
      const range = { from: Math.max(0, Math.min(d.from, to)), to: Math.min(times.end, Math.max(d.from, to)) };
      if (range.to - range.from > 0.05) setView({ loop: range });
    } else
      setBox({
        left: Math.min(d.x, x) + NAMES,
        top: Math.min(d.y, y),
        width: Math.abs(x - d.x),
        height: Math.abs(y - d.y),
      });
  };
  const onUp = () => {
    const d = drag.current;
    drag.current = null;
    if (d?.kind !== 'box' || !box) return setBox(null);
    const keys: KeyRef[] = [];
    for (const row of layout) {
      animatedTracks(row.layer).forEach(([property, track], i) => {
        for (const key of track.keyframes) {
          const x = NAMES + timeToX(axis, times.timeOf(key.at));
          const y =
            rowsTop -
            (rows.current?.scrollTop ?? 0) +
            row.top +
            (row.isOpen ? ROW + (i + 0.5) * PROPERTY_ROW : ROW / 2);
          if (x >= box.left && x <= box.left + box.width && y >= box.top && y <= box.top + box.height)
            keys.push({ layerId: row.layer.id, property, keyId: key.id });
        }
      });
    }
    const before = d.add ? useDesk.getState().selectedKeys : [];
    const all = [...before, ...keys.filter((k) => !before.some((b) => b.keyId === k.keyId))];
    selectLayers([...new Set(all.map((k) => k.layerId))]);
    setView({ selectedKeys: all });
    setBox(null);
  };

  /**
   * Shows the marked stretch (or what is selected), or the part of the song under the playhead, as wide as the timeline
   * is.
   */
  const zoomTo = useCallback(
    (what: 'stretch' | 'section') => {
      const spans = piece.layers
        .filter((l) => useDesk.getState().selectedLayers.includes(l.id))
        .map((l) => [times.timeOf(l.start), times.timeOf(l.end)] as const);
      const chosen =
        loop ??
        (spans.length > 0
          ? { from: Math.min(...spans.map((s) => s[0])), to: Math.max(...spans.map((s) => s[1])) }
          : null);
      const { music } = piece;
      const section =
        music &&
        analysis?.sections
          .map((s) => ({ from: songToPiece(music, s.start), to: songToPiece(music, s.end) }))
          .filter((s) => s.from <= playhead.seconds + 1e-3)
          .pop();
      const shown = what === 'stretch' ? chosen : section;
      if (shown && shown.to > shown.from) setAxis((a) => fitAxis(a.width, shown.from, shown.to));
    },
    [piece, times, loop, analysis],
  );
  const onKey = useCallback(
    (e: React.KeyboardEvent) => {
      const zoomAt = (factor: number) => setAxis((a) => zoomAxis(a, factor, timeToX(a, playhead.seconds), end));
      if (e.key === '+' || e.key === '=') zoomAt(1.3);
      else if (e.key === '-') zoomAt(1 / 1.3);
      else if (e.key === '0') setAxis((a) => fitAxis(a.width, 0, end));
      else if (e.key === '9') zoomTo('stretch');
      else if (e.key === '8') zoomTo('section');
    },
    [end, zoomTo],
  );

  const confidence =
    times.grid.confidence.length > 2
      ? Math.round((100 * times.grid.confidence.reduce((a, b) => a + b, 0)) / times.grid.confidence.length)
      : null;
  return (
    <div
      ref={holder}
      className="timeline"
      tabIndex={0}
      role="region"
      aria-label={WORDS.timeline}
      style={{ ['--names' as string]: `${NAMES}px` }}
      onPointerDown={onDown}
      onPointerMove={onMove}
      onPointerUp={onUp}
      onPointerCancel={onUp}
      onKeyDown={onKey}
      data-pixels-per-second={axis.pixelsPerSecond}
      data-scroll={axis.scroll}
      data-names={NAMES}
    >
      <canvas ref={canvas} aria-hidden="true" />
      <Box position="absolute" left="12px" pointerEvents="none" style={{ top: RULER + PARTS, width: NAMES - 20 }}>
        <Box fontWeight="500" overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
          {song ? song.name.replace(/\.\w+$/, '') : WORDS.noMusic}
        </Box>
        <Box className="muted" fontSize="11.5px">
          {song
            ? confidence === null
              ? WORDS.tempoTypedByHand
              : beatLine(analysis, piece.music?.correction ?? null, confidence)
            : WORDS.bpmTyped(piece.tempo.bpm)}
        </Box>
        {analysis && song && (
          <Box
            className="muted"
            fontSize="10px"
            position="absolute"
            right="-4px"
            lineHeight="10px"
            textAlign="right"
            style={{ top: WAVE + 2 }}
          >
            {WORDS.high}
            <br />
            {WORDS.mid}
            <br />
            {WORDS.low}
          </Box>
        )}
      </Box>
      <EdgeHandles axis={axis} names={NAMES} />
      {phrases.length > 0 && (
        <Box position="absolute" left="0" right="0" style={{ top: MUSIC_HEIGHT }}>
          <PhraseLane axis={axis} phrases={phrases} />
        </Box>
      )}
      <div className="rows" ref={rows} style={{ top: rowsTop }}>
        <DndContext {...context}>
          <Box position="relative" style={{ height: window.getTotalSize() + 40 }}>
            {window.getVirtualItems().map(({ index, key }) => {
              const row = layout[index]!; // the window is over the rows
              return (
                <LayerRow
                  key={key}
                  layer={row.layer}
                  top={row.top}
                  depth={row.depth}
                  isOpen={row.isOpen}
                  isFolded={row.isFolded}
                  ownGestures={piece.gestures}
                  media={piece.media}
                  axis={axis}
                  isDropTarget={drop !== null && drop.line === null && drop.parentId === row.layer.id}
                />
              );
            })}
            {drop && drop.line !== null && (
              <div className="drop-line" style={{ top: drop.line - 1, left: 6 + drop.depth * INDENT }} />
            )}
          </Box>
        </DndContext>
        {layout.length === 0 && (
          <Box as="p" className="muted" position="absolute" top="20px" style={{ left: NAMES + 20 }}>
            {WORDS.putUpWordsOr}
          </Box>
        )}
      </div>
      {box && (
        <Box
          position="absolute"
          border="1px solid var(--lamp)"
          background="color-mix(in srgb, var(--lamp) 12%, transparent)"
          pointerEvents="none"
          zIndex="7"
          style={{ ...box }}
        />
      )}
      <div
        ref={head}
        className="playhead"
        role="slider"
        aria-label={WORDS.playhead}
        aria-valuenow={0}
        aria-valuetext={formatBarBeat(beatToBar(times.grid, secondsToBeat(times.grid, 0)))}
        tabIndex={-1}
      />
    </div>
  );
}
