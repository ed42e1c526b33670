import { useEffect, useRef, useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { createPainter, needsOf } from '@core/paint';
import { resolveTimes } from '@core/piece';
import { prepareScene, sceneAt } from '@core/scene';
import { createLayoutCache } from '@core/text';
import { api, call } from '../../platform/api';
import { receivedPiece } from '../../platform/received-piece';
import { createBrowserHost, loadedFonts } from '../../platform/browser-host';
import { WORDS } from './words';

/**
 * One frame of a piece at full size and nothing else: `/frame/ID?at=SECONDS&format=ID`. For proofs, comparison and
 * printing.
 */
export function FramePage() {
  const { id = '' } = useParams();
  const [query] = useSearchParams();
  const canvas = useRef<HTMLCanvasElement>(null);
  const [state, setState] = useState('loading');
  const at = Number(query.get('at') ?? 0);
  const format = query.get('format');
  useEffect(() => {
    let isCurrent = true;
    (async () => {
      setState('loading');
      const piece = receivedPiece((await call(api.pieces[':id'].$get({ param: { id } }))).piece);
      const song = piece.media.find((m) => m.id === piece.music?.mediaId);
      const analysis = song
        ? await call(api.media[':hash'].analysis.$get({ param: { hash: song.hash } })).catch(() => null)
        : null;
      const host = createBrowserHost();
      const fonts = await loadedFonts(piece);
      const list = sceneAt(
        prepareScene(piece, resolveTimes(piece, analysis), format ?? piece.leadFormatId),
        at,
        createLayoutCache(fonts),
      );
      await host.sources.fetch(needsOf(list));
      const target = canvas.current;
      if (!isCurrent || !target) return;
      target.width = list.width;
      target.height = list.height;
      const context = target.getContext('2d', { willReadFrequently: true });
      if (!context) throw new Error('no canvas');
      createPainter(host).paint(context, list); // DrawContext is a subset of Canvas2D
      target.dataset.at = String(at);
      setState('painted');
    })().catch((error: unknown) => isCurrent && setState(error instanceof Error ? error.message : 'failed'));
    return () => {
      isCurrent = false;
    };
  }, [id, at, format]);
  return <canvas ref={canvas} data-state={state} aria-label={WORDS.frameAtSeconds(at)} className="block" />;
}
