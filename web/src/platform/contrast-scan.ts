import { wantedRatio, worstContrast } from '@core/checks';
import { createPainter, needsOf } from '@core/paint';
import type { Painter } from '@core/paint';
import { NO_DRESS, ancestorsOf, byId, constantTrack, formatOf, resolveTimes, shownLayers } from '@core/piece';
import type { Layer, Piece, TextLayer } from '@core/piece';
import type { SongAnalysis } from '@core/audio';
import { prepareScene, sceneAt } from '@core/scene';
import type { DisplayList } from '@core/scene';
import { createLayoutCache } from '@core/text';
import type { Seconds } from '@core/time';
import { createBrowserHost, loadedFonts } from './browser-host';

/**
 * Contrast is looked at in pictures of this many pixels along the longer side: letters of 24 in 1080 still have whole
 * pixels.
 */
const SIDE = 640;
/** How often a layer is looked at over its whole stay, seconds, and how many times at least and at most. */
const EVERY = 0.25;
const FEWEST_MOMENTS = 5;
const MOST_MOMENTS = 32;

export interface ContrastFinding {
  readonly layerId: string;
  readonly at: Seconds;
  readonly ratio: number;
  readonly wanted: number;
  /** Luminance behind the letters where they are faintest, 0 to 1. */
  readonly behind: number;
  /** The frame with the place marked. */
  readonly picture: Blob | null;
}

interface Canvas {
  readonly element: OffscreenCanvas;
  readonly context: OffscreenCanvasRenderingContext2D;
  readonly painter: Painter;
}

/**
 * The layer's letters alone, white on black. While they fade in or out they are not yet letters; words that are faint
 * all the time are.
 */
function lettersOnly(piece: Piece, layer: TextLayer): Piece {
  const bare: TextLayer = {
    ...layer,
    blend: 'normal',
    gestures: layer.gestures.map((g) => ({ ...g, colour: '#ffffff' })),
    content: {
      ...layer.content,
      dress: NO_DRESS,
      gradient: 'none',
      picture: null,
      spans: layer.content.spans.map(({ colour: _colour, ...span }) => span),
    },
    tracks: {
      ...layer.tracks,
      fill: constantTrack('#ffffff'),
      strokeWidth: constantTrack(0),
      opacity: layer.tracks.opacity?.keyframes.length ? layer.tracks.opacity : constantTrack(1),
    },
  };
  // Where its groups have it; how they fade and blend is not the letters' own.
  const groups = ancestorsOf(byId(piece.layers), layer.id).map((group): Layer => ({
    ...group,
    blend: 'normal',
    gestures: [],
  }));
  return { ...piece, background: constantTrack('#000000'), layers: [bare, ...groups], transitions: [] };
}

/**
 * Paints each text where it stands, with and without what is behind it, and gives those that stand out too little, the
 * faintest first. Runs in slices, so that it can be called off.
 */
export async function scanContrast(
  piece: Piece,
  analysis: SongAnalysis | null,
  formatId: string,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<ContrastFinding[]> {
  const host = createBrowserHost('small');
  const fonts = await loadedFonts(piece);
  const layout = createLayoutCache(fonts);
  const times = resolveTimes(piece, analysis);
  const format = formatOf(piece, formatId);
  const scale = SIDE / Math.max(format.width, format.height);
  const [width, height] = [Math.round(format.width * scale), Math.round(format.height * scale)];
  const canvas = (): Canvas => {
    const element = new OffscreenCanvas(width, height);
    const context = element.getContext('2d', { willReadFrequently: true });
    if (!context) throw new Error('this browser has no canvas to draw on');
    return { element, context, painter: createPainter(host) };
  };
  const [seen, alone] = [canvas(), canvas()];
  const paint = async (c: Canvas, list: DisplayList) => {
    const needs = needsOf(list);
    if (!host.sources.has(needs)) await host.sources.fetch(needs);
    c.painter.paint(c.context, list, scale); // DrawContext is a subset
    return c.context.getImageData(0, 0, width, height).data;
  };
  const scene = prepareScene(piece, times, format.id);
  const texts = shownLayers(piece.layers).filter(
    (l): l is TextLayer => l.kind === 'text' && l.content.text.trim() !== '',
  );
  const findings: ContrastFinding[] = [];
  for (const [i, layer] of texts.entries()) {
    if (signal.aborted) return [];
    const [from, to] = [Math.max(0, times.timeOf(layer.start)), Math.min(times.end, times.timeOf(layer.end))];
    if (to <= from) continue;
    const own = prepareScene(lettersOnly(piece, layer), times, format.id);
    let worst: ContrastFinding | null = null;
    const moments = Math.min(MOST_MOMENTS, Math.max(FEWEST_MOMENTS, Math.ceil((to - from) / EVERY)));
    for (let m = 0; m < moments && !signal.aborted; m++) {
      const at = from + ((to - from) * (m + 0.5)) / moments;
      onProgress((i + m / moments) / texts.length);
      await new Promise((resolve) => setTimeout(resolve, 0));
      const list = sceneAt(own, at, layout);
      const letters = await paint(alone, list);
      const picture = await paint(seen, sceneAt(scene, at, layout));
      const cell = worstContrast(picture, letters, width, height);
      if (!cell || (worst && worst.ratio <= cell.ratio)) continue;
      const lead = Math.min(format.width, format.height);
      const [drawn] = list.items;
      const size = drawn ? Math.abs(drawn.matrix[3]) * 1000 : lead;
      const wanted = wantedRatio(size / lead);
      if (cell.ratio >= wanted) continue;
      worst = {
        layerId: layer.id,
        at,
        ratio: cell.ratio,
        wanted,
        behind: cell.behind,
        picture: await marked(seen, cell.box),
      };
    }
    if (worst) findings.push(worst);
  }
  onProgress(1);
  return findings.sort((a, b) => a.ratio - b.ratio);
}

async function marked(
  { element }: Canvas,
  [l, t, r, b]: readonly [number, number, number, number],
): Promise<Blob | null> {
  const k = 220 / element.width;
  const small = new OffscreenCanvas(220, Math.round(element.height * k));
  const context = small.getContext('2d');
  if (!context) return null;
  context.drawImage(element, 0, 0, small.width, small.height);
  context.strokeStyle = '#FF6F59';
  context.lineWidth = 2;
  context.strokeRect(l * k - 3, t * k - 3, (r - l) * k + 6, (b - t) * k + 6);
  return small.convertToBlob({ type: 'image/jpeg', quality: 0.8 });
}
