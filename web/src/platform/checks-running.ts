import { runThrough } from '@core/checks';
import { resolveTimes } from '@core/piece';
import { createLayoutCache } from '@core/text';
import { loadedFonts } from './browser-host';
import { browserSpelling } from './browser-spelling';
import { scanContrast } from './contrast-scan';
import { scanFlashes } from './flash-scan';
import type { FromChecks, ToChecks } from './checks-protocol';

/** Looks for mistakes, beside the page. */
const underway = new Map<number, AbortController>();

const SCANS = { contrast: scanContrast, flashes: scanFlashes } as const;

const post = (message: FromChecks): void => self.postMessage(message);

async function work(data: Exclude<ToChecks, { type: 'stop' }>, signal: AbortSignal): Promise<void> {
  const { id, piece, analysis } = data;
  if (data.type !== 'run') {
    const onProgress = (share: number): void => post({ type: 'progress', id, share });
    const scan = SCANS[data.type];
    const findings = await scan(piece, analysis, data.formatId, onProgress, signal);
    // Each scan finds what its name says.
    if (!signal.aborted) post({ type: data.type, id, findings } as FromChecks);
    return;
  }
  const layoutText = createLayoutCache(await loadedFonts(piece));
  // Without its dictionaries the other checks are run all the same.
  const spelling = data.checks.includes('spelling') ? await browserSpelling().catch(() => null) : null;
  const times = resolveTimes(piece, analysis);
  const findings = runThrough({ piece, times, layoutText, analysis, spelling }, data.checks);
  post({ type: 'findings', id, findings });
}

export function receive(data: ToChecks): void {
  if (data.type === 'stop') {
    underway.get(data.id)?.abort();
    return;
  }
  const stop = new AbortController();
  underway.set(data.id, stop);
  work(data, stop.signal)
    .catch((error: unknown) =>
      post({ type: 'failed', id: data.id, message: error instanceof Error ? error.message : String(error) }),
    )
    .finally(() => underway.delete(data.id));
}
