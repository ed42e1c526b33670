import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { hasPathEngine, providePathEngine } from '@core/geometry';
import { combinesShapes, loadTexts, loadWithin, piecesDrawn } from '@core/piece';
import type { Piece } from '@core/piece';
import type { FontLibrary } from '@core/text';

/** Its loader takes over what a process does with errors that nobody catches; that is put back. */
const TAKEN_OVER = ['uncaughtException', 'unhandledRejection'] as const;

/** The engine that makes one shape of several, once a thread. */
export async function loadPathEngine(): Promise<void> {
  if (hasPathEngine()) return;
  const before = TAKEN_OVER.map((event) => new Set(process.listeners(event as 'uncaughtException')));
  const { default: init } = await import('pathkit-wasm');
  const wasmBinary = await readFile(createRequire(import.meta.url).resolve('pathkit-wasm/bin/pathkit.wasm'));
  providePathEngine(await init({ wasmBinary }));
  for (const [i, event] of TAKEN_OVER.entries())
    for (const listener of process.listeners(event as 'uncaughtException'))
      if (!before[i]!.has(listener)) process.removeListener(event, listener); // as many as there are events
}

/**
 * Reads what a piece cannot be drawn without, beside pictures: pieces within it, the engine, the fonts it is written with.
 * Rejects as `fileOf` does.
 * @param fileOf - the text of a file by its hash.
 */
export async function readyToDraw(
  piece: Piece,
  fonts: FontLibrary,
  fileOf: (hash: string) => Promise<string>,
): Promise<void> {
  await loadWithin(piece, fileOf);
  if (combinesShapes(piece)) await loadPathEngine();
  for (const one of piecesDrawn(piece)) await loadTexts(one, fonts);
}
