import { readFile } from 'node:fs/promises';
import { runThrough, tellFlashing } from '@core/checks';
import type { CheckId, Finding } from '@core/checks';
import { resolveTimes, withPieceFonts } from '@core/piece';
import { createLayoutCache } from '@core/text';
import type { Assets } from '../platform/config';
import { flashesOf } from './flashes-of';
import { createFrameSource } from './frame-source';
import type { RenderInput } from './frame-source';
import { readyToDraw } from './ready-to-draw';
import { serverSpelling } from './server-spelling';
import { createServerFonts } from './skia-host';

/** The run-through of a piece on the server: all that can be told without painting. */
export async function findingsIn(
  { piece, analysis, files }: Pick<RenderInput, 'piece' | 'analysis' | 'files'>,
  assets: Assets,
  shipped = createServerFonts(assets.fontsDir),
): Promise<(Finding & { readonly check: CheckId })[]> {
  const fonts = withPieceFonts(piece, shipped, (hash) => readFile(files[hash] ?? ''));
  await readyToDraw(piece, fonts, (hash) => readFile(files[hash] ?? '', 'utf8'));
  const layoutText = createLayoutCache(fonts);
  const spelling = await serverSpelling(assets);
  return runThrough({ piece, times: resolveTimes(piece, analysis), layoutText, analysis, spelling });
}

/**
 * What would not be rendered as it was meant in one format, and what flashes in it, in sentences. @throws Cancelled; AppError
 * MEDIA_MISSING.
 */
export async function mistakesIn(input: RenderInput, assets: Assets, signal?: AbortSignal): Promise<string[]> {
  const shipped = createServerFonts(assets.fontsDir);
  const findings = await findingsIn(input, assets, shipped);
  const told = findings
    .filter(({ severity, formatId }) => severity === 'error' && (formatId === null || formatId === input.formatId))
    .map(({ text }) => text);
  const source = await createFrameSource(input, shipped);
  return [...told, ...(await flashesOf(source, input.piece.frameRate, signal)).map(tellFlashing)];
}
