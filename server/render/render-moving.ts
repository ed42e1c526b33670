import { rm, stat } from 'node:fs/promises';
import { USUAL_SETTINGS } from '@core/formats';
import type { Dither, ExportSettings } from '@core/formats';
import { framesPerSecond } from '@core/time';
import type { Seconds } from '@core/time';
import { encodeFile } from './encode-file';
import type { ExportRun } from './export-run';
import { renderVideo } from './render-video';
import type { RenderFacts } from './render-video';
import { MEZZANINES } from './video-recipes';
import type { VideoRecipe } from './video-recipes';

/** Moving pictures without sound: painted once, kept without loss, and encoded from there until they are small enough. */

type Moving = ExportSettings['moving'];

/** How far a try is from the best there is: a share of the sides, and the quality. */
interface Try {
  readonly scale: number;
  readonly quality: number;
}

interface Pace {
  /** Filter that brings frames to their size and number. */
  readonly filter: string;
  /** How long the last frame stands, hundredths of a second. */
  readonly lastDelay: number;
}

interface MovingKind {
  readonly isSeeThrough: boolean;
  readonly usual: { readonly longerSide: number | null; readonly framesPerSecond: number | null };
  readonly encode: (from: string, pace: Pace, moving: Moving, attempt: Try, run: ExportRun) => Promise<void>;
  /** What is tried after a file came out so many times too large. */
  readonly next: (attempt: Try, over: number) => Try;
}

const DITHER: Readonly<Record<Dither, string>> = {
  // Only where something moves, so that what stands still does not shimmer.
  diffusion: 'sierra2_4a:diff_mode=rectangle',
  pattern: 'bayer:bayer_scale=3:diff_mode=rectangle',
  none: 'none:diff_mode=rectangle',
};

/** The size of a picture goes with its area, a little less than in proportion. */
const smallerSides = ({ scale, quality }: Try, over: number): Try => ({
  scale: (scale / Math.sqrt(over)) * 0.96,
  quality,
});

export const MOVING_KINDS = {
  gif: {
    isSeeThrough: false,
    // What is larger is too large to be sent anywhere.
    usual: { longerSide: 480, framesPerSecond: 15 },
    // One palette for the whole, of the colours that change most.
    async encode(from, { filter, lastDelay }, { dither, plays }, _, { out, signal }) {
      const palette = `${out}.palette.png`;
      try {
        const colours = `${filter},format=bgr0,palettegen=max_colors=255:stats_mode=diff`;
        await encodeFile(['-i', `file:${from}`, '-vf', colours, '-frames:v', '1', '-f', 'image2'], palette, signal);
        const use = `[0:v]${filter},format=bgr0[x];[x][1:v]paletteuse=dither=${DITHER[dither]}`;
        const loop = plays === 1 ? -1 : Math.max(0, plays - 1); // the number of repeats; -1 for none
        await encodeFile(
          [
            ...['-i', `file:${from}`, '-i', `file:${palette}`, '-filter_complex', use],
            ...['-loop', String(loop), '-final_delay', String(lastDelay), '-f', 'gif'],
          ],
          out,
          signal,
        );
      } finally {
        await rm(palette, { force: true });
      }
    },
    next: smallerSides,
  },
  'webp-animated': {
    isSeeThrough: true,
    usual: { longerSide: null, framesPerSecond: null },
    encode: (from, { filter }, { plays }, { quality }, { out, signal }) =>
      encodeFile(
        [
          ...['-i', `file:${from}`, '-vf', `${filter},format=bgra`, '-c:v', 'libwebp_anim', '-lossless', '0'],
          ...['-quality', String(quality), '-loop', String(plays), '-f', 'webp'],
        ],
        out,
        signal,
      ),
    // First a lower quality, then smaller sides.
    next: (attempt, over) =>
      attempt.quality > 40 ? { ...attempt, quality: attempt.quality - 21 } : smallerSides(attempt, over),
  },
} as const satisfies Record<string, MovingKind>;

/**
 * So many frames a second that all together last as long as the piece, which need not end with one of them: they begin at
 * whole hundredths, and the last stands for what is left. At least two hundredths, which players take as one fiftieth.
 * @param rate - frames a second, as a fraction.
 */
function paceOf(duration: Seconds, rate: string, size: string): Pace {
  const [num = 1, den = 1] = rate.split('/').map(Number);
  const frames = Math.max(1, Math.round((duration * num) / den));
  return {
    // The last picture once more, so that there are frames enough however their times are rounded.
    filter: `tpad=stop_mode=clone:stop_duration=1,fps=${rate},trim=end_frame=${frames}${size}`,
    lastDelay: Math.max(2, Math.round(duration * 100) - Math.round(((frames - 1) * den * 100) / num)),
  };
}

const TRIES = 10;
const LEAST_SIDE = 32;

/** Renders moving pictures, at most as large as is asked for where a file can be made so small. */
export async function renderMoving(id: keyof typeof MOVING_KINDS, run: ExportRun): Promise<RenderFacts> {
  const kind: MovingKind = MOVING_KINDS[id];
  const { moving } = run.settings ?? USUAL_SETTINGS;
  const longerSide = moving.longerSide ?? kind.usual.longerSide;
  const most = moving.framesPerSecond ?? kind.usual.framesPerSecond;
  const { frameRate } = run.input.piece;
  const fps = most === null || most >= framesPerSecond(frameRate) ? `${frameRate.num}/${frameRate.den}` : String(most);
  const recipe: VideoRecipe = {
    ...{ pixels: 'rgba', isSeeThrough: kind.isSeeThrough, sound: null, isTagged: false },
    ...{ ...MEZZANINES.rgba, container: null, isInParts: false },
    ...(longerSide === null ? {} : { longerSide }),
  };
  const whole = `${run.out}.${recipe.part.extension}`;
  try {
    const { at: _at, ...rest } = run;
    const facts = await renderVideo({
      ...{ ...rest, out: whole, recipe },
      onProgress: (share) => run.onProgress?.(0.8 * share),
    });
    const duration = (facts.frames * frameRate.den) / frameRate.num;
    let attempt: Try = { scale: 1, quality: 82 };
    for (let i = 1; ; i++) {
      const side = (name: string): string => `max(${LEAST_SIDE},trunc(${name}*${attempt.scale.toFixed(4)}/2)*2)`;
      const size = attempt.scale === 1 ? '' : `,scale='${side('iw')}':'${side('ih')}':flags=lanczos`;
      await kind.encode(whole, paceOf(duration, fps, size), moving, attempt, run);
      run.onProgress?.(0.8 + (0.2 * i) / TRIES);
      const over = moving.megabytes === null ? 0 : (await stat(run.out)).size / (moving.megabytes * 1e6);
      if (over <= 1) return facts;
      if (i === TRIES) return { ...facts, isTooLarge: true };
      attempt = kind.next(attempt, over);
    }
  } finally {
    await rm(whole, { force: true });
  }
}
