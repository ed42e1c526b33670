import { fetchAnalysis } from '../../platform/fetch-analysis';
import { useEffect, useRef, useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { createPainter, needsOf } from '@core/paint';
import { resolveTimes, timedBy } from '@core/piece';
import { prepareScene, sceneAt } from '@core/scene';
import { createLayoutCache } from '@core/text';
import { api, call } from '../../platform/api';
import { receivedPiece } from '../../platform/received-piece';
import { createBrowserHost, loadedFonts } from '../../platform/browser-host';
import { previewRate } from './preview-rate';
import { WORDS } from './words';

/** Most seconds of a piece that are played to be measured. */
const MOST_MEASURED = 60;

/**
 * One frame of a piece at full size and nothing else: `/frame/ID?at=SECONDS&format=ID`. For proofs, comparison and
 * printing. With `&measure=N` it also says how many frames a second are painted as the preview is, in N seconds of the piece.
 */
export function FramePage() {
  const { id = '' } = useParams();
  const [query] = useSearchParams();
  const canvas = useRef<HTMLCanvasElement>(null);
  const [state, setState] = useState('loading');
  const at = Number(query.get('at') ?? 0);
  const format = query.get('format');
  const measured = Math.min(MOST_MEASURED, Number(query.get('measure') ?? 0));
  useEffect(() => {
    let isCurrent = true;
    (async () => {
      setState('loading');
      const piece = receivedPiece((await call(api.pieces[':id'].$get({ param: { id } }))).piece);
      const timed = timedBy(piece);
      const analysis = timed ? await fetchAnalysis(timed).catch(() => null) : null;
      const host = createBrowserHost();
      const fonts = await loadedFonts(piece);
      const times = resolveTimes(piece, analysis);
      const scene = prepareScene(piece, times, format ?? piece.leadFormatId);
      const layout = createLayoutCache(fonts);
      const list = sceneAt(scene, at, layout);
      await host.sources.fetch(needsOf(list));
      const target = canvas.current;
      if (!isCurrent || !target) return;
      target.width = list.width;
      target.height = list.height;
      const context = target.getContext('2d', { willReadFrequently: true });
      if (!context) throw new Error('no canvas');
      createPainter(host).paint(context, list); // DrawContext is a subset of Canvas2D
      target.dataset.at = String(at);
      if (measured > 0)
        target.dataset.rate = String(await previewRate({ scene, layout, host, end: times.end }, measured));
      setState('painted');
    })().catch((error: unknown) => isCurrent && setState(error instanceof Error ? error.message : 'failed'));
    return () => {
      isCurrent = false;
    };
  }, [id, at, format, measured]);
  return <canvas ref={canvas} data-state={state} aria-label={WORDS.frameAtSeconds(at)} className="block" />;
}
