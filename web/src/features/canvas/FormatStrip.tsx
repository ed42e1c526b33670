import { useEffect, useRef } from 'react';
import { createPainter, needsOf } from '@core/paint';
import { loadTexts } from '@core/piece';
import type { Format } from '@core/piece';
import { prepareScene, sceneAt } from '@core/scene';
import type { LayoutText, PreparedScene } from '@core/scene';
import { browserPieceFonts } from '../../platform/browser-host';
import { playhead } from '../../platform/clock';
import { pageHost, pageLayout } from '../../platform/page-painting';
import { takeTurns } from '../../platform/turns';
import { setView, useDesk } from '../../store/desk-store';
import { usePiece, useTimes } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

/** Pixels a frame is high beside the canvas. */
const HEIGHT = 118;
/** Milliseconds of rest after an edit before other frames follow it: a drag stays as quick as without them. */
const REST = 120;

/** The piece in a frame, at the playhead. */
function FormatPicture({ format }: { format: Format }) {
  const piece = usePiece();
  const times = useTimes();
  const canvas = useRef<HTMLCanvasElement>(null);
  const scale = (HEIGHT * 2) / format.height;
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const painter = createPainter(pageHost);
    let ready: { readonly scene: PreparedScene; readonly lay: LayoutText } | null = null;
    let isStale = false;
    let isGone = false;
    const repaint = (): void => {
      painter.forget();
      isStale = true;
    };
    const waits = setTimeout(() => {
      void browserPieceFonts(piece)
        .then(async (fonts) => {
          await loadTexts(piece, fonts);
          ready = { scene: prepareScene(piece, times, format.id), lay: pageLayout(fonts) };
          isStale = true;
        })
        .catch(() => {}); // the canvas says what is missing
    }, REST);
    const forget = playhead.subscribe(() => {
      isStale = true;
    });
    const leave = takeTurns({
      paint: () => {
        if (!ready || !isStale) return;
        isStale = false;
        const list = sceneAt(ready.scene, playhead.seconds, ready.lay);
        painter.paint(context, list, scale); // DrawContext is a subset
        const needs = needsOf(list);
        if (!pageHost.sources.has(needs))
          pageHost.sources.fetch(needs).then(
            () => !isGone && repaint(),
            () => {},
          );
      },
      isInView: () => true,
      isWatched: () => false,
    });
    return () => {
      isGone = true;
      clearTimeout(waits);
      forget();
      leave();
    };
  }, [piece, times, format.id, scale]);
  return (
    <Button
      variant="bare"
      className="format-picture"
      aria-label={WORDS.show(format.name)}
      onClick={() => setView({ formatId: format.id })}
    >
      <canvas
        ref={canvas}
        width={Math.round(format.width * scale)}
        height={HEIGHT * 2}
        style={{ height: HEIGHT }}
        aria-hidden="true"
      />
      {format.name}
    </Button>
  );
}

/** All other frames of the piece beside the one that is edited, playing with it; a click edits that one. */
export function FormatStrip() {
  const { formats } = usePiece();
  const shown = useDesk((s) => s.formatId);
  return (
    <div className="format-strip" role="group" aria-label={WORDS.otherFrames}>
      {formats
        .filter(({ id }) => id !== shown)
        .map((format) => (
          <FormatPicture key={format.id} format={format} />
        ))}
    </div>
  );
}
