import type { SongAnalysis } from '../../audio';
import { readingTime, secondsAWord } from '../../text';
import type { ReadingPace } from '../../text';
import { beatMoment, beatToBar, beatToSeconds, freeMoment, isFreeTime, secondsToBeat } from '../../time';
import type { Moment, Seconds } from '../../time';
import { createLayer } from '../document/create';
import type { IdSource } from '../document/create';
import { layPhrases } from './lay-phrases';
import type { Place } from './lay-phrases';
import type { ResolvedTimes } from '../times/resolve-times';
import type { Layer, TextLayer } from '../document/layer-schema';
import type { Piece } from '../document/schema';
import type { PhraseTag } from '../document/text-content';
import { heardTimes, songParts } from '../song/song-parts';

/**
 * The phrase sheet: a view of the text layers that are phrases. A phrase is its layer; there is no second copy of words
 * or times, so sheet, timeline and canvas cannot disagree.
 */

/** Whether a layer is tied to the sheet, the captions or the roll in this part. */
export const hasRole = (layer: Layer, role: PhraseTag['role']): layer is TextLayer =>
  layer.kind === 'text' && layer.content.phrase?.role === role;

/** Phrases in the order in which they are read: by start, then as they are stacked. */
export const phraseLayers = (piece: Piece, times: ResolvedTimes): TextLayer[] => inOrder(piece, times, 'phrase');

/** Captions in order of time: text layers like any other, styled all at once. */
export const captionLayers = (piece: Piece, times: ResolvedTimes): TextLayer[] => inOrder(piece, times, 'caption');

/** The piece with its captions unseen: they lie beside it then. */
export const withoutCaptions = <T extends Pick<Piece, 'layers'>>(piece: T): T => ({
  ...piece,
  layers: piece.layers.map((layer) => (hasRole(layer, 'caption') ? { ...layer, hidden: true } : layer)),
});

function inOrder(piece: Piece, times: ResolvedTimes, role: PhraseTag['role']): TextLayer[] {
  return piece.layers
    .filter((layer): layer is TextLayer => hasRole(layer, role))
    .map((layer, i) => ({ layer, i, start: times.timeOf(layer.start) }))
    .sort((a, b) => a.start - b.start || a.i - b.i)
    .map(({ layer }) => layer);
}

export const authorLayer = (piece: Piece): TextLayer | null =>
  piece.layers.find((layer): layer is TextLayer => hasRole(layer, 'author')) ?? null;

/** Text layers for phrases, one after another from a time on; laying them on the music gives them their real places. */
export function newPhrases(texts: readonly string[], from: Seconds, until: Seconds, newId: IdSource): TextLayer[] {
  const whole = texts.reduce((sum, text) => sum + readingTime(text), 0) || 1;
  const stretch = (until - from) / whole;
  let at = from;
  return texts.map((text) => {
    const length = readingTime(text) * stretch;
    const layer = createLayer(
      'text',
      {
        name: text.slice(0, 60),
        start: freeMoment(at),
        end: freeMoment(at + length),
        content: { text, family: 'bricolage-grotesque', phrase: { role: 'phrase', locked: false, emphasis: [] } },
      },
      newId,
    );
    at += length;
    return layer as TextLayer; // of the kind asked for
  });
}

export interface LayPlan {
  readonly from: Seconds;
  readonly until: Seconds;
  readonly pace: ReadingPace;
  /** Where time is short, shorten every phrase in proportion instead of saying no. */
  readonly anyway: boolean;
}

export type Laid =
  | {
      readonly ok: true;
      readonly spans: readonly { readonly id: string; readonly start: Moment; readonly end: Moment }[];
    }
  | { readonly ok: false; readonly needed: Seconds; readonly available: Seconds; readonly wordsTooMany: number };

interface MomentPlace extends Place {
  readonly moment: Moment;
}

/** How good it is to begin on a place of the lattice. Tuned by ear on the demo songs. */
const GOODNESS = { section: 1, fourth: 0.95, downbeat: 0.88, strongBeat: 0.6, beat: 0.5, part: 0.2, hit: 0.12 };
/** A hit this near counts for the place, seconds. */
const NEAR: Seconds = 0.04;

/**
 * Places of the lattice where a phrase can begin or end, every `step` beats, ascending; the ends of the range are among
 * them.
 */
function phrasePlaces(
  piece: Piece,
  times: ResolvedTimes,
  analysis: SongAnalysis | null,
  from: Seconds,
  until: Seconds,
  step: number,
): MomentPlace[] {
  const { grid } = times;
  const parts = piece.music ? songParts(piece.music) : [];
  const heard = (seconds: readonly Seconds[]) => seconds.flatMap((t) => heardTimes(parts, t)).sort((a, b) => a - b);
  const strong = analysis && piece.music ? heard(analysis.hits.filter((h) => h.strength > 0.6).map((h) => h.time)) : [];
  const sections = analysis && piece.music ? heard(analysis.sections.map((s) => s.start)) : [];
  const isNear = (list: readonly Seconds[], t: Seconds) => list.some((x) => Math.abs(x - t) < NEAR);
  const out: MomentPlace[] = [{ at: from, goodness: GOODNESS.beat, moment: freeMoment(from) }];
  const first = Math.ceil(secondsToBeat(grid, from) / step - 1e-6) * step;
  for (let i = 0; i < 20000; i++) {
    const beat = Math.round((first + i * step) * 1e6) / 1e6;
    const at = beatToSeconds(grid, beat);
    if (at > until - 1e-3) break;
    if (isFreeTime(grid, at)) continue;
    const place = beatToBar(grid, beat);
    const isBeat = Math.abs(beat - Math.round(beat)) < 1e-6;
    const isDown = isBeat && Math.abs(place.beat - 1) < 1e-4;
    const isFourth = isDown && (place.bar - 1) % 4 === 0;
    const base = isNear(sections, at)
      ? GOODNESS.section
      : isFourth
        ? GOODNESS.fourth
        : isDown
          ? GOODNESS.downbeat
          : !isBeat
            ? GOODNESS.part
            : Math.abs(place.beat - 3) < 1e-4
              ? GOODNESS.strongBeat
              : GOODNESS.beat;
    const entry = {
      at,
      goodness: Math.min(1, base + (isNear(strong, at) ? GOODNESS.hit : 0)),
      moment: beatMoment(beat, grid),
    };
    if (at - from < 1e-3) out[0] = entry;
    else out.push(entry);
  }
  out.push({ at: until, goodness: 0, moment: Math.abs(times.end - until) < 1e-6 ? piece.end : freeMoment(until) });
  return out;
}

/** Most places the optimiser is given: its work grows with their square. */
const MOST_PLACES = 900;

/**
 * Lays the phrases of a piece on its music: on beats if that leaves each its reading time, else on halves, then
 * quarters. Locked phrases stay. Phrases are wished as long as their share of the reading time.
 */
export function layOnMusic(piece: Piece, times: ResolvedTimes, analysis: SongAnalysis | null, plan: LayPlan): Laid {
  const layers = phraseLayers(piece, times);
  const locked = layers.map((layer) =>
    layer.content.phrase?.locked || layer.locked
      ? { start: times.timeOf(layer.start), end: times.timeOf(layer.end) }
      : null,
  );
  const from = Math.min(plan.from, ...locked.flatMap((l) => (l ? [l.start] : [])));
  const until = Math.max(plan.until, ...locked.flatMap((l) => (l ? [l.end] : [])));
  const least = layers.map((layer) => readingTime(layer.content.text, plan.pace));
  const needed = least.reduce((sum, t, i) => sum + (locked[i] ? 0 : t), 0);
  const available = until - from - locked.reduce((sum, l) => sum + (l ? l.end - l.start : 0), 0);
  const squeeze = needed > available ? (available / needed) * 0.96 : 1;
  if (squeeze < 1 && !plan.anyway)
    return {
      ok: false,
      needed,
      available,
      wordsTooMany: Math.max(1, Math.ceil((needed - available) / secondsAWord(plan.pace))),
    };
  const stretch = Math.max(squeeze, available / Math.max(1e-6, needed));
  for (const [step, factor] of [
    [1, 1],
    [0.5, 1],
    [0.25, 1],
    [0.25, 0.8],
    [0.125, 0.6],
  ] as const) {
    // Shorter than it takes to read only where that was asked for.
    if (factor < 1 && !plan.anyway) break;
    const places = phrasePlaces(piece, times, analysis, from, until, step).filter(
      (p) => !locked.some((l) => l && p.at > l.start - 1e-3 && p.at < l.end + 1e-3),
    );
    for (const [i, l] of locked.entries())
      if (l)
        places.push(
          { at: l.start, goodness: 0.5, moment: layers[i]!.start },
          { at: l.end, goodness: 0.5, moment: layers[i]!.end },
        );
    places.sort((a, b) => a.at - b.at);
    if (places.length > MOST_PLACES) continue;
    const needs = least.map((t, i) => ({
      least: t * squeeze * factor,
      wished: Math.max(0.1, t * stretch),
      fixed: locked[i] ?? null,
    }));
    const laid = layPhrases(needs, places);
    if (laid)
      return {
        ok: true,
        spans: laid.stretches.map((s, i) => ({
          id: layers[i]!.id,
          start: places[s.start]!.moment,
          end: places[s.end]!.moment,
        })),
      };
  }
  // The time would do, but not between the locked phrases.
  return {
    ok: false,
    needed,
    available,
    wordsTooMany: Math.max(1, Math.ceil(shortfall(least, locked, from, until) / secondsAWord(plan.pace))),
  };
}

/** Seconds missing in the fullest gap between locked phrases. */
function shortfall(
  least: readonly Seconds[],
  locked: readonly ({ start: Seconds; end: Seconds } | null)[],
  from: Seconds,
  until: Seconds,
): Seconds {
  let worst = 0;
  let begin = from;
  let need = 0;
  for (const [i, l] of [...locked, { start: until, end: until }].entries()) {
    if (l) {
      worst = Math.max(worst, need - (l.start - begin));
      begin = l.end;
      need = 0;
    } else need += least[i] ?? 0;
  }
  return worst;
}
