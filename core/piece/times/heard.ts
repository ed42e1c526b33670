import type { SongAnalysis } from '../../audio';
import { barToBeat, barsBetween, beatToSeconds, beatsBetween } from '../../time';
import type { BeatGrid, Seconds } from '../../time';
import type { ListenSource } from '../document/composition-schema';
import type { Music } from '../document/song-schema';
import { heardTimes, songParts, songTime } from '../song/song-parts';

/**
 * What is heard while a piece plays, for whatever moves with it. It is read off the analysis and the lattice, never
 * measured while playing: so preview, export and any single frame agree.
 */
export interface Heard {
  /**
   * Levels in [0, 1] over the whole piece, {@link HEARD_RATE} a second, the first at 0 s. Of bands, onsets and energy
   * they run; of hits, beats and bars they are 0 but at the moment itself. All 0 where no music plays, but for beats and
   * bars, which the tempo alone has too.
   */
  levels(source: ListenSource): Float32Array;
}

/** Levels a second: two to a frame at 100 frames a second. */
export const HEARD_RATE = 200;

/** Curves of the analysis are stored in this many steps. */
const CURVE_STEPS = 255;

interface Context {
  readonly music: Music | null;
  readonly analysis: SongAnalysis | null;
  readonly grid: BeatGrid;
  readonly end: Seconds;
}

/** Level of each step of time, from what the song has at the time of it that is heard then. */
function sampled({ music, analysis, end }: Context, level: (songSeconds: Seconds) => number): Float32Array {
  const levels = new Float32Array(Math.ceil(end * HEARD_RATE) + 1);
  if (!music || !analysis) return levels;
  const parts = songParts(music, analysis.duration);
  const [first, last] = [parts[0], parts[parts.length - 1]];
  if (!first || !last) return levels;
  const stop = last.at + last.to - last.from;
  for (let i = 0; i < levels.length; i++) {
    const seconds = i / HEARD_RATE;
    if (seconds >= first.at && seconds < stop) levels[i] = level(songTime(parts, seconds));
  }
  return levels;
}

/** A level at moments and silence between them; of two that fall together the stronger counts. */
function marked(end: Seconds, moments: Iterable<readonly [Seconds, number]>): Float32Array {
  const levels = new Float32Array(Math.ceil(end * HEARD_RATE) + 1);
  for (const [seconds, level] of moments) {
    const i = Math.round(seconds * HEARD_RATE);
    if (i >= 0 && i < levels.length) levels[i] = Math.max(levels[i]!, level);
  }
  return levels;
}

function curveLevel(curve: readonly number[], rate: number): (seconds: Seconds) => number {
  return (seconds) => {
    const x = seconds * rate;
    const i = Math.floor(x);
    const [a, b] = [curve[i] ?? 0, curve[i + 1] ?? curve[i] ?? 0];
    return Math.max(0, Math.min(1, (a + (b - a) * (x - i)) / CURVE_STEPS));
  };
}

function energyLevel({ beats, energy }: SongAnalysis): (seconds: Seconds) => number {
  let i = 0;
  return (seconds) => {
    // Times come ascending but for cuts.
    if (i > 0 && (beats[i] ?? 0) > seconds) i = 0;
    while (i + 1 < beats.length && beats[i + 1]! <= seconds) i++;
    return energy[i] ?? 0;
  };
}

const SOURCES: Readonly<Record<ListenSource, (context: Context) => Float32Array>> = {
  low: (context) => bandLevels(context, ['low']),
  mid: (context) => bandLevels(context, ['mid']),
  high: (context) => bandLevels(context, ['high']),
  onsets: (context) => bandLevels(context, ['low', 'mid', 'high']),
  hits: ({ music, analysis, end }) => {
    const parts = music ? songParts(music) : [];
    const hits = music && analysis ? analysis.hits : [];
    return marked(
      end,
      hits.flatMap((hit) => heardTimes(parts, hit.time).map((seconds) => [seconds, hit.strength] as const)),
    );
  },
  beats: ({ grid, end }) =>
    marked(
      end,
      beatsBetween(grid, 0, end).map((beat) => [beatToSeconds(grid, beat), 1]),
    ),
  bars: ({ grid, end }) =>
    marked(
      end,
      barsBetween(grid, 0, end).map((bar) => [beatToSeconds(grid, barToBeat(grid, bar)), 1]),
    ),
  energy: (context) => sampled(context, context.analysis ? energyLevel(context.analysis) : () => 0),
};

function bandLevels(context: Context, bands: readonly ('low' | 'mid' | 'high')[]): Float32Array {
  const { analysis } = context;
  if (!analysis) return sampled(context, () => 0);
  const curves = bands.map((band) => curveLevel(analysis.curves[band], analysis.curveRate));
  return sampled(context, (seconds) => Math.max(...curves.map((level) => level(seconds))));
}

/** What is heard in a piece; each source is read once, when it is first asked for. */
export function heardIn(context: Context): Heard {
  const known = new Map<ListenSource, Float32Array>();
  return {
    levels(source) {
      let levels = known.get(source);
      if (!levels) known.set(source, (levels = SOURCES[source](context)));
      return levels;
    },
  };
}
