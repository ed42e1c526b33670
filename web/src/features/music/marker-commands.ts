import { hitId } from '@core/audio';
import type { HitClass } from '@core/audio';
import { songOf, songToPiece, spreadTargets } from '@core/piece';
import type { Marker, SpreadPlan } from '@core/piece';
import {
  barToBeat,
  barsBetween,
  beatMoment,
  beatStress,
  beatToBar,
  beatsBetween,
  formatBarBeat,
  secondsToBeat,
} from '@core/time';
import type { Moment } from '@core/time';
import { playhead } from '../../platform/clock';
import { newId } from '../../platform/ids';
import { edit, setView, useDesk } from '../../store/desk-store';
import { WORDS } from './words';

/** Colours that markers are given in turn. */
export const MARKER_COLOURS = ['#54C6C0', '#FFB74A', '#FF6F59', '#9CCB86', '#C9A7EB', '#EEE9DF'] as const;

export const MARK_EVERY = {
  beat: { label: WORDS.everyBeat, colour: MARKER_COLOURS[5] },
  group: { label: WORDS.everyGroup, colour: MARKER_COLOURS[5] },
  bar: { label: WORDS.everyBar, colour: MARKER_COLOURS[0] },
  'four bars': { label: WORDS.everyFourBars, colour: MARKER_COLOURS[1] },
  section: { label: WORDS.everySection, colour: MARKER_COLOURS[3] },
  low: { label: WORDS.everyLowHit, colour: MARKER_COLOURS[2] },
  mid: { label: WORDS.everyMidHit, colour: MARKER_COLOURS[2] },
  high: { label: WORDS.everyHighHit, colour: MARKER_COLOURS[2] },
  tonal: { label: WORDS.everyTonalHit, colour: MARKER_COLOURS[4] },
} as const;
export type MarkEvery = keyof typeof MARK_EVERY;

/** Class and strength of a hit by its name, also of one heard again in a repeated stretch. */
export function hitFacts(id: string): { class: HitClass; strength: number } | undefined {
  const { analysis } = useDesk.getState();
  return analysis?.hits[Number(id.split(':')[1]?.split('@')[0])];
}

const HIT_PLAN: SpreadPlan = { kind: 'hit', hitClass: 'low', weakest: 0.35, pattern: '', step: 1 };

/** Markers for every beat, bar, section or hit of a kind, in the marked stretch or in the whole piece, in one step. */
export function markEvery(what: MarkEvery): void {
  const { piece, times, analysis, loop } = useDesk.getState();
  if (!piece || !times) return;
  const { grid } = times;
  const [from, to] = loop ? [loop.from, loop.to] : [0, times.end];
  let places: { at: Moment; name: string }[];
  if (what === 'beat')
    places = beatsBetween(grid, from, to).map((beat) => ({ at: beatMoment(beat, grid), name: WORDS.beat(beat + 1) }));
  else if (what === 'group')
    places = beatsBetween(grid, from, to)
      .filter((beat) => beatStress(grid, beat) !== 'beat')
      .map((beat) => ({ at: beatMoment(beat, grid), name: formatBarBeat(beatToBar(grid, beat)) }));
  else if (what === 'bar' || what === 'four bars') {
    places = barsBetween(grid, from, to)
      .filter((bar) => what === 'bar' || (bar - 1) % 4 === 0)
      .map((bar) => ({ at: beatMoment(barToBeat(grid, bar), grid), name: WORDS.bar(bar) }));
  } else if (what === 'section') {
    places = (analysis && piece.music ? analysis.sections : []).flatMap((section) => {
      const seconds = songToPiece(piece.music!, section.start); // music is checked just above
      return seconds >= from - 0.01 && seconds < to
        ? [
            {
              at: beatMoment(Math.round(secondsToBeat(grid, seconds)), grid),
              name: section.label[0]!.toUpperCase() + section.label.slice(1),
            },
          ]
        : [];
    });
  } else {
    places = spreadTargets({ ...HIT_PLAN, hitClass: what }, from, 2000, times, hitFacts)
      .filter((at) => times.timeOf(at) < to)
      .map((at, i) => ({ at, name: `${what[0]!.toUpperCase()}${what.slice(1)} ${i + 1}` }));
  }
  const taken = piece.markers.map((m) => times.timeOf(m.at));
  const markers = places
    .filter(({ at }) => taken.every((t) => Math.abs(t - times.timeOf(at)) > 0.004))
    .map(({ at, name }): Marker => ({ id: newId(), name, colour: MARK_EVERY[what].colour, at }));
  if (markers.length === 0) return setView({ notice: WORDS.thereIsNothingOf });
  if (piece.markers.length + markers.length > 2000) return setView({ notice: WORDS.aPieceCanHave });
  edit([{ type: 'markers.add', markers }]);
  setView({ notice: WORDS.setMarker(markers.length) });
}

/** Jumps to the next marker in a direction. */
export function goToMarker(direction: 1 | -1): void {
  const { piece, times } = useDesk.getState();
  if (!piece || !times) return;
  const all = piece.markers.map((m) => times.timeOf(m.at)).sort((a, b) => a - b);
  const next =
    direction > 0
      ? all.find((t) => t > playhead.seconds + 1e-4)
      : all.reverse().find((t) => t < playhead.seconds - 1e-4);
  if (next !== undefined) playhead.set(next);
}

/** Pins the start of the selected layers to a marker: they follow it from now on. */
export function pinSelectionTo(marker: Marker): void {
  const { selectedLayers, times } = useDesk.getState();
  if (!times || selectedLayers.length === 0) return setView({ notice: WORDS.selectALayerFirst });
  edit([
    {
      type: 'layer.place',
      places: selectedLayers.map((id) => ({
        id,
        at: { kind: 'pinned', to: { type: 'marker', id: marker.id }, last: times.timeOf(marker.at) },
      })),
    },
  ]);
}

/** Time of the song's hit nearest to the playhead, and its name. */
export function hitAtPlayhead(): { id: string; songSeconds: number } | null {
  const { piece, times, analysis } = useDesk.getState();
  const song = piece && songOf(piece);
  if (!times || !analysis || !song) return null;
  let best: { id: string; songSeconds: number } | null = null;
  let nearest = Infinity;
  analysis.hits.forEach((hit, i) => {
    const t = times.targets.hits.get(hitId(song.hash, i));
    if (t === undefined || Math.abs(t - playhead.seconds) >= nearest) return;
    nearest = Math.abs(t - playhead.seconds);
    best = { id: hitId(song.hash, i), songSeconds: hit.time };
  });
  return best;
}
