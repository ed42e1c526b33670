import { songOf } from '../document/media-of';
import { hitId } from '../../audio';
import type { SongAnalysis } from '../../audio';
import { beatToSeconds, nearestIndex, overallTempo, resolveMoment, secondsToBeat } from '../../time';
import type { BeatGrid, Beats, Moment, Seconds, TimeTargets } from '../../time';
import type { Piece } from '../document/schema';
import type { GridCorrection, Music } from '../document/song-schema';
import { listMoments } from '../times/resolve-times';
import type { ResolvedTimes } from '../times/resolve-times';
import { GRID_FACTORS, applyFactor, applySpans } from './grid-corrections';
import { foundBeats, musicGrid } from './music-grid';

/**
 * What becomes of a piece whose song is heard anew, by a later method: corrections made by hand are said again for the
 * beats that are found now, and every pin goes to the beat or hit that is now where it stood.
 */
export interface Rehearing {
  readonly analysisVersion: number;
  readonly correction: GridCorrection;
  /** Beat numbers of before and what stands for each now. */
  readonly beats: [Beats, Beats][];
  /** Names of hits of before and now; pins to others come loose and stay at their time. */
  readonly hits: [string, string][];
  /** Beats of now to one of before: lengths and offsets in beats are so many times as large. */
  readonly ratio: number;
}

/** A pin keeps to a whole beat this near, in beats of now; then to a half beat; else to the nearest twelfth. */
const TO_BEAT = 0.2;
const TO_HALF = 0.12;
const TWELFTHS = 12;

function beatNow(before: BeatGrid, now: BeatGrid, beat: Beats): Beats {
  const found = secondsToBeat(now, beatToSeconds(before, beat));
  const whole = Math.round(found);
  if (Math.abs(found - whole) <= TO_BEAT) return whole;
  const half = Math.round(found * 2) / 2;
  return Math.abs(found - half) <= TO_HALF ? half : Math.round(found * TWELFTHS) / TWELFTHS;
}

/** A hit this near is the same. */
const SAME_HIT: Seconds = 0.05;

function hitNow(name: string, hash: string, before: SongAnalysis, now: SongAnalysis, times: readonly Seconds[]) {
  const [, index = '', again = ''] = /:(\d+)(@\d+)?$/.exec(name) ?? [];
  const hit = before.hits[Number(index)];
  if (!hit || now.hits.length === 0) return null;
  const near: { readonly i: number; readonly far: number }[] = [];
  for (let i = nearestIndex(times, hit.time - SAME_HIT); i < times.length && times[i]! <= hit.time + SAME_HIT; i++) {
    const far = Math.abs(times[i]! - hit.time) + (now.hits[i]!.class === hit.class ? 0 : SAME_HIT);
    if (Math.abs(times[i]! - hit.time) <= SAME_HIT) near.push({ i, far });
  }
  const [best] = near.sort((a, b) => a.far - b.far);
  return best ? `${hitId(hash, best.i)}${again}` : null;
}

/** A moved beat this near to one that is found now needs no moving any more. */
const ON_BEAT: Seconds = 0.01;

/** Twice or half the beats were chosen for the tempo that they gave. */
function factorNow({ correction }: Music, before: BeatGrid, after: SongAnalysis): GridCorrection['factor'] {
  if (correction.factor === 1 || after.beats.length < 2) return correction.factor;
  const wanted = overallTempo(before);
  const off = (factor: number) => Math.abs(Math.log((after.bpm * factor) / wanted));
  return GRID_FACTORS.reduce((best, factor) => (off(factor) < off(best) ? factor : best));
}

function correctionNow(music: Music, before: BeatGrid, after: SongAnalysis): GridCorrection {
  const { correction } = music;
  const factor = factorNow(music, before, after);
  const found = applySpans(applyFactor(foundBeats(music, after), factor), correction.spans, after.hits).times;
  const moves = correction.moves.flatMap(({ to }) => {
    const at = found.length > 0 ? found[nearestIndex(found, to)]! : to;
    return Math.abs(at - to) <= ON_BEAT ? [] : [{ at, to }];
  });
  return { ...correction, factor, moves };
}

/** Ratios of tempi that are the same pulse counted otherwise. */
const RATIOS = [1 / 3, 1 / 2, 1, 2, 3];
const SAME_RATIO = 0.08;

function ratioOf(before: BeatGrid, now: BeatGrid): number {
  const ratio = overallTempo(now) / overallTempo(before);
  return RATIOS.find((r) => Math.abs(ratio / r - 1) < SAME_RATIO) ?? 1;
}

const beatsOf = (moment: Moment): Beats[] => {
  if (moment.kind === 'free' || moment.to.type !== 'beat') return [];
  const { beat } = moment.to;
  return moment.offset?.unit === 'beats' ? [beat, beat + moment.offset.value] : [beat];
};

/**
 * @param times - of the piece as it is. @param before - the analysis that it is timed by. @param after - that of the same song by another method.
 * @returns Null without music.
 */
export function rehear(
  piece: Piece,
  times: Pick<ResolvedTimes, 'grid'>,
  before: SongAnalysis,
  after: SongAnalysis,
): Rehearing | null {
  const { music } = piece;
  if (!music) return null;
  const { grid } = times;
  const correction = correctionNow(music, grid, after);
  const now = musicGrid({ ...music, correction }, after, piece.tempo);
  const moments = listMoments(piece).map(({ moment }) => moment);
  const beats = new Set(moments.flatMap(beatsOf));
  const names = new Set(moments.flatMap((m) => (m.kind === 'pinned' && m.to.type === 'hit' ? [m.to.id] : [])));
  const hash = songOf(piece)?.hash ?? '';
  const hitTimes = after.hits.map((hit) => hit.time);
  return {
    analysisVersion: after.version,
    correction,
    beats: [...beats].map((beat) => [beat, beatNow(grid, now, beat)]),
    hits: [...names].flatMap((name): [string, string][] => {
      const found = hitNow(name, hash, before, after, hitTimes);
      return found === null ? [] : [[name, found]];
    }),
    ratio: ratioOf(grid, now),
  };
}

/** Where pins go, for looking up. */
export interface PinsReheard {
  readonly beats: ReadonlyMap<Beats, Beats>;
  readonly hits: ReadonlyMap<string, string>;
  readonly ratio: number;
}

/** A moment as it is said by the beats and hits of now; undefined where nothing changes. @param targets - of before. */
export function momentReheard(
  moment: Moment,
  { beats, hits, ratio }: PinsReheard,
  targets: TimeTargets,
): Moment | undefined {
  if (moment.kind === 'free') return undefined;
  const { to, offset } = moment;
  if (to.type === 'beat') {
    const now = (beat: Beats) => beats.get(beat) ?? beat;
    const beat = now(to.beat);
    return {
      ...moment,
      to: { type: 'beat', beat },
      ...(offset?.unit === 'beats' ? { offset: { unit: 'beats', value: now(to.beat + offset.value) - beat } } : {}),
    };
  }
  const scaled = offset?.unit === 'beats' ? { offset: { ...offset, value: offset.value * ratio } } : {};
  if (to.type === 'marker') return { ...moment, ...scaled };
  const name = hits.get(to.id);
  if (name === undefined) return { kind: 'free', seconds: resolveMoment(moment, targets).seconds };
  return { ...moment, to: { type: 'hit', id: name }, ...scaled };
}
