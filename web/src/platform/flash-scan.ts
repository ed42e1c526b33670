import { FlashMeter, flashSize } from '@core/checks';
import type { Flashing } from '@core/checks';
import { createPainter, needsOf } from '@core/paint';
import { formatOf, resolveTimes } from '@core/piece';
import type { Piece } from '@core/piece';
import type { SongAnalysis } from '@core/audio';
import { prepareScene, sceneAt } from '@core/scene';
import { createLayoutCache } from '@core/text';
import { frameCount, frameMiddle } from '@core/time';
import { createBrowserHost, loadedFonts } from './browser-host';

/** Frames between two looks at whether it was called off. */
const AT_ONCE = 8;

/** Paints every frame of a format small and measures how they flash. Runs in slices, so that it can be called off. */
export async function scanFlashes(
  piece: Piece,
  analysis: SongAnalysis | null,
  formatId: string,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<readonly Flashing[]> {
  const host = createBrowserHost('small');
  const layout = createLayoutCache(await loadedFonts(piece));
  const times = resolveTimes(piece, analysis);
  const format = formatOf(piece, formatId);
  const [width, height] = flashSize(format.width, format.height);
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('this browser has no canvas to draw on');
  const painter = createPainter(host);
  const scene = prepareScene(piece, times, format.id);
  const meter = new FlashMeter(width, height);
  const count = frameCount(times.end, piece.frameRate);
  for (let frame = 0; frame < count && !signal.aborted; frame++) {
    if (frame % AT_ONCE === 0) {
      onProgress(frame / count);
      await new Promise((resolve) => setTimeout(resolve, 0));
    }
    const at = frameMiddle(frame, piece.frameRate);
    const list = sceneAt(scene, at, layout);
    const needs = needsOf(list);
    if (!host.sources.has(needs)) await host.sources.fetch(needs);
    painter.paint(context, list, width / format.width); // DrawContext is a subset
    meter.add(context.getImageData(0, 0, width, height).data, at);
  }
  return meter.found();
}
