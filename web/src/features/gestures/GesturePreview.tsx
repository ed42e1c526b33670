import { useEffect, useRef } from 'react';
import { createPainter } from '@core/paint';
import { gestureDefinition, newGestureUse } from '@core/motion';
import type { GestureRole, OwnGesture } from '@core/motion';
import { createLayer, createPiece, resolveTimes } from '@core/piece';
import type { MediaRef, TextLayer } from '@core/piece';
import { prepareScene, sceneAt } from '@core/scene';
import type { LayoutText } from '@core/scene';
import { FRAME_RATES, freeMoment } from '@core/time';
import { browserPieceFonts } from '../../platform/browser-host';
import { pageHost, pageLayout } from '../../platform/page-painting';
import { newId } from '../../platform/ids';
import { WORDS } from './words';

/** The frame previews are made in: pixels as shown, times two for sharp screens. */
const W = 216;
const H = 96;
/** A preview's round: it comes in, stands, goes out (or moves while it stands), and rests a little. */
const ROUND = 2.6;
const STANDS = 2.4;

/**
 * A gesture moving on the user's own words, painted by the same core as the piece. Only previews in view are painted.
 */
export function GesturePreview({
  gesture,
  role,
  words,
  family,
  weight,
  own,
  media,
}: {
  gesture: string;
  role: GestureRole;
  words: string;
  family: string;
  weight: number;
  own: OwnGesture | null;
  media: readonly MediaRef[];
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const element = canvas.current;
    const context = element?.getContext('2d');
    if (!element || !context) return;
    const text = words.split(/\s+/u).slice(0, 3).join(' ').slice(0, 18) || WORDS.kiteWeek;
    const shown = gestureDefinition(gesture)?.does === 'counts' && !/\d/.test(text) ? '1,250' : text;
    const base = createPiece(
      { name: 'preview', formats: [{ id: 'f', name: 'f', width: W, height: H }], frameRate: FRAME_RATES['30'] },
      newId,
    );
    const layer = createLayer(
      'text',
      {
        name: 'words',
        start: freeMoment(0.15),
        end: freeMoment(STANDS),
        values: { size: 34, weight, fill: '#EEE9DF' },
        content: { text: shown, family, area: { x: 0.1, y: 0.15, width: 0.8, height: 0.7, valign: 'middle' } },
      },
      newId,
    ) as TextLayer; // of the kind asked for
    const use = newGestureUse(gesture, role, newId());
    layer.gestures = [
      {
        ...use,
        ...(use.duration.unit === 'stay'
          ? {}
          : {
              duration: { unit: 'seconds' as const, value: Math.min(1.4, own?.duration ?? use.duration.value * 0.45) },
            }),
      },
    ];
    const piece = { ...base, end: freeMoment(ROUND), layers: [layer], gestures: own ? [own] : [] };
    const scene = prepareScene(piece, resolveTimes(piece, null), 'f');
    const painter = createPainter(pageHost);
    let frame = 0;
    let isInView = false;
    let lay: LayoutText | null = null;
    void browserPieceFonts({ media: [...media] })
      .then(async (fonts) => {
        await fonts.load(family, false, `${shown}0123456789`);
        lay = pageLayout(fonts);
      })
      .catch(() => {}); // without its font a preview stays empty; the canvas says what is missing
    const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches;
    let lastPaint = 0;
    // Each begins at another time: there is always something to look at.
    const phase = [...gesture].reduce((sum, c) => sum + c.charCodeAt(0) * 0.37, 0);
    const tick = (now: number) => {
      frame = requestAnimationFrame(tick);
      // Twenty times a second is enough to choose by, and leaves the desk its time.
      if (!lay || !isInView || now - lastPaint < 48) return;
      lastPaint = now;
      const at = still ? 0.7 : (now / 1000 + phase) % ROUND;
      // DrawContext is a subset
      painter.paint(context, { ...sceneAt(scene, at, lay), background: '#181e26' });
    };
    const observer = new IntersectionObserver(([entry]) => {
      isInView = entry?.isIntersecting ?? false;
    });
    observer.observe(element);
    frame = requestAnimationFrame(tick);
    return () => {
      cancelAnimationFrame(frame);
      observer.disconnect();
    };
  }, [gesture, role, words, family, weight, own, media]);
  return <canvas ref={canvas} width={W} height={H} className="gesture-preview" aria-hidden="true" />;
}
