import type { ToPreview } from './preview-protocol';

/**
 * Entry of the painting worker. The painter's modules wait for WebAssembly while they load, and a worker drops messages
 * that arrive before it listens: so this small entry listens at once and passes on what came meanwhile.
 */
const waiting: ToPreview[] = [];
self.onmessage = ({ data }: MessageEvent<ToPreview>) => void waiting.push(data);

import('./preview-painting').then(
  ({ receive }) => {
    for (const message of waiting) receive(message);
    self.onmessage = ({ data }: MessageEvent<ToPreview>) => receive(data);
  },
  (error: unknown) =>
    self.postMessage({ type: 'failed', message: error instanceof Error ? error.message : String(error) }),
);
