import { createPainter, needsOf } from '@core/paint';
import type { DrawContext } from '@core/paint';
import type { SongAnalysis } from '@core/audio';
import { patched, resolveTimes } from '@core/piece';
import type { Piece } from '@core/piece';
import { boxCorners } from '@core/geometry';
import { prepareScene, sceneAt } from '@core/scene';
import type { DisplayItem, LayoutText, PreparedScene } from '@core/scene';
import { createLayoutCache } from '@core/text';
import type { FontLibrary } from '@core/text';
import { browserPieceFonts, createBrowserHost, loadAllTexts, picturesOf, readyToDraw } from './browser-host';
import { epochNow } from './heard-clock';
import { NeedsFetcher } from './needs-fetcher';
import { PlayingLoop } from './playing-loop';
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

const MOST_AHEAD = 24;

/** Where layers lie, a group before what is in it. */
const placesOf = (items: readonly DisplayItem[]): LayerPlace[] =>
  items.flatMap((item) => {
    // What is done to a group as a whole lies about it as one part more.
    const inside = item.kind === 'group' && item.holds === 'parts' ? item.children[0] : item;
    const group =
      inside?.kind === 'group' && inside.holds === 'layers' && inside.layerId === item.layerId ? inside : null;
    const masks = item.kind === 'group' ? item.masks?.map((mask) => mask.matrix) : undefined;
    const own: LayerPlace = {
      layerId: item.layerId,
      isGroup: group !== null,
      corners: boxCorners(item.matrix, item.box),
      ...(masks ? { masks } : {}),
    };
    const parts = inside?.kind === 'shape' ? (inside.parts ?? []) : [];
    return [
      group || parts.length > 0 ? { ...own, isGroup: true } : own,
      ...(group ? placesOf(group.children) : []),
      ...parts.map((part) => ({ layerId: part.layerId, isGroup: false, corners: boxCorners(part.matrix, part.box) })),
    ];
  });

const post = (message: FromPreview) => self.postMessage(message);

const fail = (error: unknown) =>
  post({ type: 'failed', message: error instanceof Error ? error.message : String(error) });

/** Paints what is wanted, at another moment if one is given. @returns how long it took, milliseconds. */
function paint(moment?: number): number {
  isScheduled = false;
  if (!canvas || !context || !scene || !layout || !wanted) return 0;
  const { scale, skipLayerId } = wanted;
  const seconds = moment ?? wanted.seconds;
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
    needs.fetch(needsOf(list), wanted.heard !== null);
    post({ type: 'painted', seconds, scale, milliseconds: performance.now() - started, places: placesOf(list.items) });
  } catch (error) {
    fail(error);
  }
  return performance.now() - started;
}

const playing = new PlayingLoop({
  now: epochNow,
  // A worker's turns are those of the screen; where it has none, they are about as many.
  nextTurn: (run) =>
    'requestAnimationFrame' in self ? void requestAnimationFrame(run) : void setTimeout(run, 1000 / 60),
  paint,
});

/** What the frame shows and is not there is painted when it has come. */
const needs = new NeedsFetcher(
  host,
  () => repaint(),
  fail,
  (hash) => piece?.media.find((ref) => ref.hash === hash)?.footage?.frames ?? 0,
);

/** Something has arrived that frames were painted without. */
function repaint(): void {
  painter.forget();
  schedule();
}

function schedule(): void {
  if (wanted?.heard) return playing.again();
  if (isScheduled) return;
  isScheduled = true;
  // Messages that are already waiting come first, and the newest wins.
  setTimeout(() => {
    if (isScheduled) paint();
  }, 0);
}

/** Pictures that come later in the piece are there when they are to be seen, as many as are kept. */
function fetchAhead(piece: Piece): void {
  const pictures = picturesOf(piece).slice(0, MOST_AHEAD);
  if (host.sources.has(pictures)) return;
  // What cannot be had is told when it is to be seen.
  host.sources.fetch(pictures).then(repaint, repaint);
}

/** What the page told of the piece. */
let piece: Piece | null = null;
let analysis: SongAnalysis | null = null;
let formatId = '';
let isStale = false;

/** Messages come in runs (a document, its analysis, its format; patches of a drag): the scene is made once for all. */
function refresh(): void {
  if (isStale) return;
  isStale = true;
  setTimeout(() => {
    isStale = false;
    prepare().catch(fail);
  }, 0);
}

async function prepare(): Promise<void> {
  const now = piece;
  if (!now || !now.formats.some((format) => format.id === formatId)) return;
  // What is missing is told, and all else is drawn.
  const [fonts] = await Promise.all([browserPieceFonts(now), readyToDraw(now).catch(fail)]);
  if (now !== piece) return refresh();
  if (fonts !== laidWith) {
    layout = createLayoutCache(fonts);
    laidWith = fonts;
  }
  scene = prepareScene(now, resolveTimes(now, analysis), formatId);
  schedule();
  needs.forget();
  fetchAhead(now);
  const before = fonts.generation;
  try {
    await loadAllTexts(now, fonts);
  } finally {
    // What did arrive is shown, also if a font is missing.
    if (fonts.generation !== before) {
      layout = createLayoutCache(fonts);
      repaint();
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
    case 'document':
      piece = data.piece;
      refresh();
      break;
    case 'patches': {
      const next = piece && patched(piece, data.patches);
      if (!next) return post({ type: 'lost' });
      piece = next;
      refresh();
      break;
    }
    case 'analysis':
      analysis = data.analysis;
      refresh();
      break;
    case 'format':
      formatId = data.formatId;
      refresh();
      break;
    case 'frame':
      wanted = data;
      if (data.heard) playing.play(data.heard);
      else {
        playing.stop();
        schedule();
      }
      break;
  }
}
