import { Span } from '@chakra-ui/react';
import { useRef } from 'react';
import type { TextLayer } from '@core/piece';
import { beatMoment, secondsToBeat } from '@core/time';
import { selectLayers, useDesk } from '../../store/desk-store';
import { usePiece, useTimes } from '../../store/selectors';
import { moveBoundary, phraseTimes } from '../words/phrase-commands';
import { timeToX } from './time-axis';
import type { TimeAxis } from './time-axis';
import { snapDragged, useTimeDrag } from './use-time-drag';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

export const LANE = 28;

/**
 * The phrases as a line of text along the music, like words under notes; the strokes between them are dragged on the
 * lattice.
 */
export function PhraseLane({ axis, phrases }: { axis: TimeAxis; phrases: readonly TextLayer[] }) {
  return (
    <div className="phrase-lane" role="group" aria-label={WORDS.phrasesOnTheMusic} style={{ height: LANE }}>
      <Span className="muted" position="absolute" left="12px" top="5px" fontSize="12px">
        {WORDS.phrases}
      </Span>
      <div className="track">
        {phrases.map((layer, i) => (
          <Phrase key={layer.id} layer={layer} next={phrases[i + 1]} axis={axis} />
        ))}
      </div>
    </div>
  );
}

function Phrase({ layer, next, axis }: { layer: TextLayer; next: TextLayer | undefined; axis: TimeAxis }) {
  const piece = usePiece();
  const times = useTimes();
  const isOn = useDesk((s) => s.selectedLayers.includes(layer.id));
  const held = useRef(0);
  const { start, has, needs } = phraseTimes({ piece, times }, layer);
  // In a group that builds up phrases overlap: a phrase's own part ends where the next begins.
  const end = next ? Math.min(start + has, times.timeOf(next.start)) : start + has;
  const drag = useTimeDrag(axis.pixelsPerSecond, {
    onStart: () => {
      held.current = end;
      selectLayers([layer.id]);
    },
    onDrag: (delta, gesture, e) =>
      moveBoundary(
        layer.id,
        snapDragged(held.current + delta, axis.pixelsPerSecond, [layer.id, ...(next ? [next.id] : [])], e.altKey),
        gesture,
      ),
  });
  const step = (e: React.KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[e.key];
    if (!by) return;
    e.preventDefault();
    e.stopPropagation();
    const { division } = useDesk.getState();
    const beat = Math.round(secondsToBeat(times.grid, end) / division) * division + by * division;
    moveBoundary(layer.id, beatMoment(beat, times.grid), `boundary-${layer.id}`);
  };
  const left = timeToX(axis, start);
  const width = Math.max(2, (end - start) * axis.pixelsPerSecond);
  const isShort = end - start < needs - 0.01;
  return (
    <>
      <Button
        unstyled
        className="phrase"
        data-phrase={layer.id}
        aria-pressed={isOn}
        title={layer.content.text}
        color={isShort ? 'ember' : isOn ? 'lamp' : undefined}
        style={{ left: left + 4, width: Math.max(0, width - 7) }}
        onPointerDown={(e) => e.stopPropagation()}
        onClick={() => selectLayers([layer.id])}
      >
        {layer.content.text}
      </Button>
      <span
        className="phrase-end"
        data-boundary={layer.id}
        style={{ left: left + width }}
        {...drag}
        onKeyDown={step}
        role="slider"
        tabIndex={0}
        aria-label={WORDS.endOf(layer.content.text)}
        aria-valuenow={end}
        aria-valuetext={WORDS.seconds(end.toFixed(2))}
      />
    </>
  );
}
