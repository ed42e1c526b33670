import type { SongAnalysis } from '@core/audio';
import { PAGE_DATA_ID, pageDataSchema } from '@core/formats';
import type { PageData } from '@core/formats';
import { createPainter, needsOf } from '@core/paint';
import { parsePiece, resolveTimes } from '@core/piece';
import { prepareScene, sceneAt } from '@core/scene';
import { createLayoutCache } from '@core/text';
import { frameMiddle } from '@core/time';
import type { FrameRate } from '@core/time';
import { createBrowserHost, loadedFonts } from '../platform/browser-host';
import { serveFrom } from '../platform/served-files';

const bytesOf = (base64: string): Uint8Array<ArrayBuffer> => Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));

async function readData(): Promise<PageData> {
  const packed = bytesOf(document.getElementById(PAGE_DATA_ID)?.textContent?.trim() ?? '');
  const text = await new Response(new Blob([packed]).stream().pipeThrough(new DecompressionStream('gzip'))).text();
  return pageDataSchema.parse(JSON.parse(text));
}

/** A piece that can be shown, frame by frame. */
export interface OpenPage {
  readonly frameRate: FrameRate;
  /** How many frames there are. */
  readonly count: number;
  /** The file of the sound; null for silence. */
  readonly sound: Uint8Array<ArrayBuffer> | null;
  /**
   * Rejects if a picture in it cannot be read.
   * @param isWhole - paints all of it anew: to the last level as a still of it is. Else what has changed.
   */
  paint(frame: number, isWhole: boolean): Promise<void>;
}

/** Reads what the page carries. Rejects if it is damaged, or if the browser cannot draw it. */
export async function openPage(canvas: HTMLCanvasElement): Promise<OpenPage> {
  const data = await readData();
  serveFrom((address) => {
    const file = data.files[address];
    return file === undefined
      ? Promise.reject(new Error(`the page lacks ${address}`))
      : Promise.resolve(new Response(bytesOf(file)));
  });
  const parsed = parsePiece(data.piece);
  if (!parsed.ok) throw new Error(parsed.problem.detail);
  const { piece } = parsed;
  const host = createBrowserHost();
  const layout = createLayoutCache(await loadedFonts(piece));
  // Written by our own server from what it had checked.
  const scene = prepareScene(piece, resolveTimes(piece, data.analysis as SongAnalysis | null), data.formatId);
  const { width, height } = scene.format;
  Object.assign(canvas, { width, height });
  const context = canvas.getContext('2d', { willReadFrequently: true }); // drawn without a card: alike everywhere
  if (!context) throw new Error('this browser has no canvas to draw on');
  const painter = createPainter(host);
  return {
    frameRate: piece.frameRate,
    count: data.count,
    sound: data.sound === null ? null : bytesOf(data.sound),
    async paint(frame, isWhole) {
      if (isWhole) painter.forget();
      const list = sceneAt(scene, frameMiddle(data.first + frame, piece.frameRate), layout);
      const needs = needsOf(list);
      if (!host.sources.has(needs)) {
        await host.sources.fetch(needs);
        painter.forget();
      }
      painter.paint(context, list);
    },
  };
}
