import { fitToBars } from '../../audio';
import type { SongAnalysis } from '../../audio';
import type { Seconds } from '../../time';
import type { Music } from '../document/song-schema';
import type { Stretch } from './arrange';
import { songToPiece } from './song-parts';

/** The song without cuts, from its first to its last sample, where it stands. */
export const uncut = (music: Music): Music => ({ ...music, cuts: [], trimStart: 0, trimEnd: null });

export type SongFit =
  | {
      readonly kind: 'fits';
      /** Stretches of the uncut song, in turn. */
      readonly stretches: readonly Stretch[];
      /** Where the music then ends in the piece. */
      readonly end: Seconds;
    }
  /** Whole bars cannot make that length: what they can make at least and at most. */
  | { readonly kind: 'not-that-long'; readonly shortest: Seconds; readonly longest: Seconds }
  | { readonly kind: 'too-few-bars' };

/** A bar of which less is heard belongs to what is before the piece. */
const MIN_HEARD: Seconds = 0.05;

interface Bar {
  readonly from: Seconds;
  readonly to: Seconds;
  readonly sound: readonly number[];
}

/** Bars of the analysis, seconds of the song. */
function songBars(analysis: SongAnalysis): Bar[] {
  return analysis.bars.flatMap((bar, k) => {
    const from = analysis.beats[bar.beat];
    const next = analysis.bars[k + 1];
    const to = next ? analysis.beats[next.beat] : analysis.duration;
    return from === undefined || to === undefined ? [] : [{ from, to, sound: bar.sound }];
  });
}

/**
 * Fits a song to a length by leaving out or repeating whole bars: it begins as it begins now and comes to its own end.
 * What lies before the piece is not heard and does not count.
 * @param seconds - from the start of the piece, or of the song if that is later, to the end of the music.
 */
export function fitSong(music: Music, analysis: SongAnalysis, seconds: Seconds): SongFit {
  const whole = uncut(music);
  const heardFrom = Math.max(0, -whole.start);
  const bars = songBars(analysis).filter((bar) => bar.to > heardFrom + MIN_HEARD);
  const inner = bars
    .slice(0, -1)
    .map((bar) => bar.to - bar.from)
    .sort((a, b) => a - b);
  const barLength = inner[inner.length >> 1];
  const [first] = bars;
  const last = bars[bars.length - 1];
  if (!first || !last || !barLength || bars.length < 3) return { kind: 'too-few-bars' };
  // The first bar may have begun before the piece.
  const head = Math.max(0, first.from - heardFrom) + (first.to - Math.max(first.from, heardFrom));
  const tail = analysis.duration - last.from;
  const between = Math.max(0, Math.round((seconds - head - tail) / barLength));
  const ranges = fitToBars(
    bars.map((bar) => bar.sound),
    2 + between,
  );
  if (!ranges)
    return { kind: 'not-that-long', shortest: head + tail, longest: head + tail + barLength * (4 * bars.length - 2) };
  const stretches = ranges.map((range, i) => ({
    from: songToPiece(whole, i === 0 ? 0 : bars[range.from]!.from),
    to: songToPiece(whole, range.to === bars.length ? analysis.duration : bars[range.to]!.from),
  }));
  const end = stretches.reduce((sum, { from, to }) => sum + to - from, whole.start);
  return { kind: 'fits', stretches, end };
}
