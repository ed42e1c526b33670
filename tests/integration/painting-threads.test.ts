import { afterAll, describe, expect, it } from '@jest/globals';
import { createLayer } from '@core/piece';
import type { Piece } from '@core/piece';
import { frameMiddle, freeMoment } from '@core/time';
import { createFrameSource } from '../../server/render/frame-source';
import { givePaintThread, keepPaintThread, takePaintThread, waitingPaintThreads } from '../../server/render/paint-pool';
import { openPainters } from '../../server/render/painters';
import { createServerFonts, pixelsOf } from '../../server/render/skia-host';
import { countingIds, newPiece } from '../helpers/documents';
import { BUILT } from '../helpers/server';

/** Painting threads that one render after another uses. */
function disc(width: number, height: number, fill: string): Piece {
  const layer = createLayer(
    'ellipse',
    { name: 'disc', start: freeMoment(0), end: freeMoment(1), values: { dimensions: [30, 20], fill } },
    countingIds('d'),
  );
  return {
    ...newPiece('Disc'),
    formats: [{ id: 'wide', name: 'Wide', width, height }],
    leadFormatId: 'wide',
    layers: [layer],
    end: freeMoment(1),
  };
}
const inputOf = (piece: Piece) => ({ piece, analysis: null, formatId: 'wide', files: {} });

/** The first frames, as they come from threads. */
async function painted(
  piece: Piece,
  count: number,
  signal?: AbortSignal,
  onFrame: () => void = () => {},
): Promise<Uint8Array[]> {
  const painters = openPainters({
    ...{ input: inputOf(piece), pixels: 'rgba', longerSide: null, assets: BUILT, threads: 1, signal },
  });
  const frames: Uint8Array[] = [];
  try {
    await painters.paint(0, count, (pixels) => {
      frames.push(Uint8Array.from(pixels));
      onFrame();
      return Promise.resolve();
    });
  } finally {
    await painters.close();
  }
  return frames;
}

async function paintedHere(piece: Piece): Promise<Uint8Array> {
  const source = await createFrameSource(inputOf(piece), createServerFonts(BUILT.fontsDir));
  return Uint8Array.from(pixelsOf(await source.paint(frameMiddle(0, piece.frameRate))));
}

/** The thread that the next render gets, which stays for it. */
function nextThread(): ReturnType<typeof takePaintThread> {
  const thread = takePaintThread(BUILT);
  givePaintThread(thread, BUILT);
  return thread;
}

afterAll(async () => {
  await nextThread().terminate();
});

describe('a painting thread', () => {
  it('paints one piece after another, each as if it were the first', async () => {
    const [red, blue] = [disc(64, 48, '#C03A2B'), disc(90, 120, '#2B5AC0')];
    const [one] = await painted(red, 3);
    const thread = nextThread();
    const [two] = await painted(blue, 3);
    const [again] = await painted(red, 3);
    expect(nextThread() === thread).toBe(true);
    expect(one).toHaveLength(64 * 48 * 4);
    expect(two).toHaveLength(90 * 120 * 4);
    expect(one).toEqual(await paintedHere(red));
    expect(two).toEqual(await paintedHere(blue));
    expect(again).toEqual(one);
  });
  it('is not used again when its render was called off half way', async () => {
    await painted(disc(64, 48, '#C03A2B'), 1);
    const thread = nextThread();
    const abort = new AbortController();
    await expect(painted(disc(64, 48, '#C03A2B'), 20, abort.signal, () => abort.abort())).rejects.toThrow();
    expect(nextThread() === thread).toBe(false);
  });
  it('has another in its place, loaded beforehand, where one is always to be there', async () => {
    keepPaintThread(BUILT);
    const thread = nextThread();
    const abort = new AbortController();
    await expect(painted(disc(64, 48, '#C03A2B'), 20, abort.signal, () => abort.abort())).rejects.toThrow();
    expect(waitingPaintThreads()).toBe(1);
    expect(nextThread() === thread).toBe(false);
    expect(await painted(disc(64, 48, '#C03A2B'), 1)).toEqual([await paintedHere(disc(64, 48, '#C03A2B'))]);
  });
});
