import { createPainter, needsOf } from '@core/paint';
import { sceneAt } from '@core/scene';
import type { LayoutText, PreparedScene } from '@core/scene';
import type { Seconds } from '@core/time';
import type { BrowserHost } from '../../platform/browser-host';

/** Pixels of the longer side that a preview is measured at. */
const LONGER_SIDE = 1280;

interface Played {
  readonly scene: PreparedScene;
  readonly layout: LayoutText;
  readonly host: BrowserHost;
  readonly end: Seconds;
}

/** Frames a second that are resolved and painted one after another, as fast as it goes, from the begin of a piece on. */
export async function previewRate({ scene, layout, host, end }: Played, seconds: Seconds): Promise<number> {
  const { width, height } = scene.format;
  const scale = LONGER_SIDE / Math.max(width, height);
  const canvas = new OffscreenCanvas(Math.round(width * scale), Math.round(height * scale));
  const context = canvas.getContext('2d', { alpha: false });
  if (!context) throw new Error('no canvas');
  const painter = createPainter(host);
  const count = Math.floor(Math.min(end, seconds) * scene.framesPerSecond);
  const at = (frame: number): Seconds => (frame + 0.5) / scene.framesPerSecond;
  for (let frame = 0; frame < count; frame += 15) await host.sources.fetch(needsOf(sceneAt(scene, at(frame), layout)));
  const start = performance.now();
  for (let frame = 0; frame < count; frame++) {
    painter.paint(context, sceneAt(scene, at(frame), layout), scale); // DrawContext is a subset of Canvas2D
    // What was asked of the canvas is done when a pixel is asked for; now and then, as a screen would.
    if (frame % 15 === 14) context.getImageData(0, 0, 1, 1);
  }
  context.getImageData(0, 0, 1, 1);
  return (count * 1000) / (performance.now() - start);
}
