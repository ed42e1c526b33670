import { rm } from 'node:fs/promises';
import { encodeFile } from './encode-file';
import type { ExportRun } from './export-run';
import { renderVideo } from './render-video';
import type { VideoRecipe } from './video-recipes';

/** Pixels of the longer side, and frames a second, at most: what is larger is too large to be sent anywhere. */
const LONGER_SIDE = 480;
const FRAMES_A_SECOND = 15;

/** Without loss and small, as the two passes read it. */
const SMALL: VideoRecipe = {
  pixels: 'rgba',
  isSeeThrough: false,
  longerSide: LONGER_SIDE,
  video: () => ['-vf', `fps='min(source_fps,${FRAMES_A_SECOND})',format=bgr0`, '-c:v', 'ffv1'],
  sound: null,
  isTagged: false,
  container: ['-f', 'matroska'],
};

/**
 * A GIF: one palette for the whole, of the colours that change most, and error diffusion only where something moves, so
 * that what stands still does not shimmer.
 */
export async function renderGif({ onProgress, at: _at, ...run }: ExportRun): Promise<Record<string, unknown>> {
  const [small, palette] = [`${run.out}.mkv`, `${run.out}.palette.png`];
  try {
    const facts = await renderVideo({
      ...run,
      out: small,
      recipe: SMALL,
      ...(onProgress ? { onFrame: (done: number, total: number) => onProgress((0.9 * done) / total) } : {}),
    });
    const from = ['-i', `file:${small}`];
    const colours = 'palettegen=max_colors=255:stats_mode=diff';
    await encodeFile([...from, '-vf', colours, '-frames:v', '1', '-f', 'image2'], palette, run.signal);
    const use = '[0:v][1:v]paletteuse=dither=sierra2_4a:diff_mode=rectangle';
    await encodeFile(
      [...from, '-i', `file:${palette}`, '-filter_complex', use, '-loop', '0', '-f', 'gif'],
      run.out,
      run.signal,
    );
    return { ...facts };
  } finally {
    for (const file of [small, palette]) await rm(file, { force: true });
  }
}
