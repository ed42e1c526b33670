import { create } from 'zustand';
import { EXPORT_KINDS, EXPORT_PLACES, USUAL_SETTINGS, settingsFor, settingsOfPlace } from '@core/formats';
import type { ExportKindId, ExportPlaceId, ExportSettings } from '@core/formats';
import { markerExcerpts, sectionExcerpts } from '@core/piece';
import type { NamedExcerpt, Piece, ResolvedTimes } from '@core/piece';
import type { SongAnalysis } from '@core/audio';
import { nameFrom } from '@core/roster';
import { WORDS } from './words';

/** What is chosen in the panel; it stays while the page is open. */
export interface RenderChoice {
  readonly kind: ExportKindId;
  readonly place: ExportPlaceId | null;
  readonly settings: ExportSettings;
  /** One of {@link excerptsOf}, or all of a sort. */
  readonly part: string;
  readonly isSelectionAlone: boolean;
  readonly pattern: string;
}

export const useRenderChoice = create<RenderChoice>(() => ({
  kind: 'mp4',
  place: null,
  settings: USUAL_SETTINGS,
  part: 'whole',
  isSelectionAlone: false,
  pattern: '{piece} {format} {part}',
}));

export const choose = (change: Partial<RenderChoice>): void => useRenderChoice.setState(change);

export function choosePlace(id: ExportPlaceId | null): void {
  choose(id ? { place: id, kind: EXPORT_PLACES[id].kind, settings: settingsOfPlace(id) } : { place: null });
}

/** A part of the piece that can be chosen; null for the whole. */
export interface PartChoice {
  readonly id: string;
  readonly group: string;
  readonly label: string;
  /** One render for each. */
  readonly excerpts: readonly (NamedExcerpt | null)[];
}

/** What of the piece can be rendered by itself. */
export function partsOf(
  piece: Piece,
  times: ResolvedTimes,
  analysis: SongAnalysis | null,
  loop: { readonly from: number; readonly to: number } | null,
): PartChoice[] {
  const sort = (id: string, group: string, each: string, found: readonly NamedExcerpt[]): PartChoice[] =>
    found.length === 0
      ? []
      : [
          ...(found.length > 1 ? [{ id: `each-${id}`, group, label: each, excerpts: found }] : []),
          ...found.map((excerpt, i) => ({ id: `${id}-${i}`, group, label: excerpt.name, excerpts: [excerpt] })),
        ];
  return [
    { id: 'whole', group: '', label: WORDS.wholePiece, excerpts: [null] },
    ...(loop
      ? [{ id: 'marked', group: '', label: WORDS.marked, excerpts: [{ ...loop, name: WORDS.markedName }] }]
      : []),
    ...sort('section', WORDS.sections, WORDS.eachSection, sectionExcerpts(piece, times, analysis)),
    ...sort('marker', WORDS.fromMarker, WORDS.eachMarker, markerExcerpts(piece, times)),
  ];
}

/** What a file is called, by the pattern. */
export const fileNameOf = (pattern: string, piece: Piece, format: string, part: string, kind: ExportKindId): string =>
  nameFrom(pattern, {
    piece: piece.name,
    format: EXPORT_KINDS[kind].isFormatless ? '' : format,
    part,
    kind: EXPORT_KINDS[kind].label,
    date: new Date().toISOString().slice(0, 10),
  });

export const settingsNow = ({ kind, settings }: Pick<RenderChoice, 'kind' | 'settings'>): ExportSettings =>
  settingsFor(EXPORT_KINDS[kind].settings, settings);
