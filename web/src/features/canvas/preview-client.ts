import type { Piece } from '@core/piece';
import { useDesk } from '../../store/desk-store';
import type { FromPreview, LayerPlace, ToPreview } from '../../platform/preview-protocol';

/**
 * The page's end of the painting worker. One worker serves the app; each canvas handed over replaces the one before.
 */
interface Stats {
  shown: number;
  milliseconds: number;
  scale: number;
}

let worker: Worker | null = null;
const placeListeners = new Set<(places: readonly LayerPlace[], seconds: number) => void>();
const failureListeners = new Set<(message: string) => void>();
let lastFailure = '';
const stamps: number[] = [];
let milliseconds = 0;
let scale = 1;

function theWorker(): Worker {
  if (!worker) {
    worker = new Worker(new URL('../../platform/preview-worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<FromPreview>) => {
      if (data.type === 'failed') {
        // The same trouble comes with every edit; it is said once.
        if (data.message !== lastFailure) for (const listener of failureListeners) listener(data.message);
        lastFailure = data.message;
        return;
      }
      if (data.type === 'lost') return sendWhole();
      const now = performance.now();
      stamps.push(now);
      while (stamps.length > 0 && stamps[0]! < now - 1000) stamps.shift();
      milliseconds = milliseconds * 0.8 + data.milliseconds * 0.2;
      scale = data.scale;
      for (const listener of placeListeners) listener(data.places, data.seconds);
    };
  }
  return worker;
}

export function sendToPreview(message: ToPreview): void {
  theWorker().postMessage(message, message.type === 'canvas' ? [message.canvas] : []);
}

/** The document the worker holds. */
let held: Piece | null = null;

function sendWhole(): void {
  const { piece } = useDesk.getState();
  held = piece;
  if (piece) sendToPreview({ type: 'document', piece });
}

/**
 * Keeps the worker's copy of the piece up to date: the document once, then what changes of it; what was found in the
 * song once a song. @returns What stops it.
 */
export function followPiece(): () => void {
  const { analysis, formatId } = useDesk.getState();
  sendToPreview({ type: 'analysis', analysis });
  sendToPreview({ type: 'format', formatId });
  sendWhole();
  const stop = useDesk.subscribe((now, before) => {
    if (now.analysis !== before.analysis) sendToPreview({ type: 'analysis', analysis: now.analysis });
    if (now.formatId !== before.formatId) sendToPreview({ type: 'format', formatId: now.formatId });
    if (now.piece === held) return;
    if (now.piece && now.change && now.change.from === held) {
      held = now.piece;
      sendToPreview({ type: 'patches', patches: now.change.patches });
    } else sendWhole();
  });
  return () => {
    stop();
    held = null;
  };
}

export function onPlaces(listener: (places: readonly LayerPlace[], seconds: number) => void): () => void {
  placeListeners.add(listener);
  return () => void placeListeners.delete(listener);
}

/** What keeps the preview from being painted as it should be, in words for people. */
export function onPreviewFailure(listener: (message: string) => void): () => void {
  lastFailure = '';
  failureListeners.add(listener);
  return () => void failureListeners.delete(listener);
}

/** Frames shown in the last second, the time one takes to paint, and the resolution painted at. */
export function previewStats(): Stats {
  const now = performance.now();
  return { shown: stamps.filter((t) => t > now - 1000).length, milliseconds, scale };
}
