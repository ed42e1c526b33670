import { createPainter } from '@core/paint';
import type { DrawContext } from '@core/paint';
import { loadTexts, resolveTimes } from '@core/piece';
import { boxCorners } from '@core/geometry';
import { prepareScene, sceneAt } from '@core/scene';
import type { DisplayItem, LayoutText, PreparedScene } from '@core/scene';
import { createLayoutCache } from '@core/text';
import type { FontLibrary } from '@core/text';
import { browserPieceFonts, createBrowserHost, pictureHashes } from './browser-host';
import type { FromPreview, LayerPlace, ToPreview } from './preview-protocol';

/** Paints the preview. Only the newest frame asked for is painted: a late one is dropped, never queued. */
const host = createBrowserHost();
let painter = createPainter(host);
let canvas: OffscreenCanvas | null = null;
let context: DrawContext | null = null;
let scene: PreparedScene | null = null;
let layout: LayoutText | null = null;
let laidWith: FontLibrary | null = null;
let wanted: Extract<ToPreview, { type: 'frame' }> | null = null;
let isScheduled = false;

/** Where layers lie, a group before what is in it. */
const placesOf = (items: readonly DisplayItem[]): LayerPlace[] =>
  items.flatMap((item) => {
    const isGroup = item.kind === 'group' && item.holds === 'layers';
    const own: LayerPlace = { layerId: item.layerId, isGroup, corners: boxCorners(item.matrix, item.box) };
    return isGroup ? [own, ...placesOf(item.children)] : [own];
  });

const post = (message: FromPreview) => self.postMessage(message);

function paint(): void {
  isScheduled = false;
  if (!canvas || !context || !scene || !layout || !wanted) return;
  const { seconds, scale, skipLayerId } = wanted;
  const started = performance.now();
  try {
    const list = sceneAt(scene, seconds, layout, skipLayerId);
    const width = Math.max(1, Math.round(list.width * scale));
    const height = Math.max(1, Math.round(list.height * scale));
    if (canvas.width !== width || canvas.height !== height) {
      canvas.width = width;
      canvas.height = height;
      painter.forget();
    }
    painter.paint(context, list, scale);
    post({ type: 'painted', seconds, scale, milliseconds: performance.now() - started, places: placesOf(list.items) });
  } catch (error) {
    post({ type: 'failed', message: error instanceof Error ? error.message : String(error) });
  }
}

function schedule(): void {
  if (isScheduled) return;
  isScheduled = true;
  setTimeout(paint, 0); // messages that are already waiting come first, and the newest wins
}

async function setScene(message: Extract<ToPreview, { type: 'scene' }>): Promise<void> {
  const { piece } = message;
  const fonts = await browserPieceFonts(piece);
  if (fonts !== laidWith) {
    layout = createLayoutCache(fonts);
    laidWith = fonts;
  }
  scene = prepareScene(piece, resolveTimes(piece, message.analysis), message.formatId);
  schedule();
  const before = fonts.generation;
  let arrived = false;
  try {
    [arrived] = await Promise.all([host.loadPictures(pictureHashes(piece)), loadTexts(piece, fonts)]);
  } finally {
    // What did arrive is shown, also if a font is missing.
    if (arrived || fonts.generation !== before) {
      painter.forget();
      schedule();
    }
  }
}

export function receive(data: ToPreview): void {
  switch (data.type) {
    case 'canvas': {
      canvas = data.canvas;
      context = canvas.getContext('2d', { alpha: false }); // DrawContext is a subset
      painter = createPainter(host);
      schedule();
      break;
    }
    case 'scene':
      setScene(data).catch((error: unknown) =>
        post({ type: 'failed', message: error instanceof Error ? error.message : String(error) }),
      );
      break;
    case 'frame':
      wanted = data;
      schedule();
      break;
  }
}
