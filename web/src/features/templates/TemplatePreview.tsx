import { useEffect, useMemo, useRef } from 'react';
import { createPainter } from '@core/paint';
import { constantTrack, loadTexts, resolveTimes, templateAlone } from '@core/piece';
import type { Format, Piece } from '@core/piece';
import { prepareScene, sceneAt } from '@core/scene';
import type { LayoutText } from '@core/scene';
import { browserPieceFonts } from '../../platform/browser-host';
import { pageHost, pageLayout } from '../../platform/page-painting';
import { takeTurns } from '../../platform/turns';

/** How long a round stands still in its middle, seconds: what is not watched is mostly seen as it is meant to be read. */
const STANDS = 4;
/** Where in its time a template shows itself to those who want nothing to move. */
const STILL = 0.5;

export type Wearer = Pick<Piece, 'wardrobe' | 'background' | 'tempo' | 'frameRate' | 'media'>;

/** A template moving in the wearer's wardrobe, with given words, painted by the core that paints pieces. */
export function TemplatePreview({
  template,
  format,
  wearer,
  values,
  isWatched,
  height,
}: {
  template: Piece;
  format: Format;
  wearer: Wearer;
  values: Readonly<Record<string, string>>;
  isWatched: boolean;
  /** Pixels as shown. */
  height: number;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const watched = useRef(isWatched);
  watched.current = isWatched;
  const key = JSON.stringify(values);
  const piece = useMemo(() => {
    // Lower thirds stand on pictures: on the ground that their plates wear nothing would be seen of them.
    const background = template.template?.use === 'lower-third' ? constantTrack('#7b8f96') : wearer.background;
    const around = {
      formats: [format],
      leadFormatId: format.id,
      frameRate: wearer.frameRate,
      wardrobe: wearer.wardrobe,
      tempo: template.tempo,
      background,
      media: wearer.media,
    };
    return templateAlone(template, around, JSON.parse(key) as Record<string, string>); // written just above
  }, [template, format, wearer, key]);
  const scale = (height * 2) / format.height;
  const width = Math.round(format.width * scale);
  useEffect(() => {
    const element = canvas.current;
    const context = element?.getContext('2d');
    if (!element || !context || !piece) return;
    const times = resolveTimes(piece, null);
    const scene = prepareScene(piece, times, format.id);
    const painter = createPainter(pageHost);
    let lay: LayoutText | null = null;
    let isGone = false;
    void browserPieceFonts({ media: wearer.media })
      .then(async (fonts) => {
        await loadTexts(piece, fonts);
        lay = pageLayout(fonts);
        if (!isGone) paint(STILL * times.end);
      })
      .catch(() => {}); // without its font a preview stays empty; the canvas says what is missing
    const paint = (at: number): void => {
      if (lay) painter.paint(context, sceneAt(scene, at, lay), scale); // DrawContext is a subset
    };
    // Each begins at another time: there is always something to look at.
    const phase = [...template.id].reduce((sum, letter) => sum + letter.charCodeAt(0) * 0.37, 0);
    const isStill = window.matchMedia('(prefers-reduced-motion: reduce)').matches;
    let isInView = false;
    const observer = new IntersectionObserver(([entry]) => {
      isInView = entry?.isIntersecting ?? false;
    });
    observer.observe(element);
    const stop = isStill
      ? () => {}
      : takeTurns({
          paint: (seconds) => {
            const round = (seconds + phase) % (times.end + STANDS);
            const middle = STILL * times.end;
            paint(round < middle ? round : Math.max(middle, Math.min(round - STANDS, times.end - 0.01)));
          },
          isInView: () => isInView,
          isWatched: () => watched.current,
        });
    return () => {
      isGone = true;
      stop();
      observer.disconnect();
    };
  }, [piece, format, template.id, wearer.media, scale]);
  return <canvas ref={canvas} className="template-preview" width={width} height={height * 2} aria-hidden="true" />;
}
