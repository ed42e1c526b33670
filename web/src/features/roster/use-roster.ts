import { useEffect, useMemo, useState } from 'react';
import { slotValues } from '@core/piece';
import type { GroupLayer, MadeFrom, Piece, Slot } from '@core/piece';
import {
  looksLikeHeader,
  matchColumns,
  nameOfPicture,
  pictureNamed,
  plainProblems,
  readTable,
  rosterRow,
  showsPicture,
  templateOfGroup,
  unmatched,
  valuesOf,
} from '@core/roster';
import type { Roster, RowProblem } from '@core/roster';
import { useAnalysis, usePiece } from '../../store/selectors';
import { checkRows } from './row-checks';
import { useKeptRoster } from './use-kept-roster';

/** A roster that nothing is in yet: a column for each slot, and what the group shows as its first row. */
function emptyRoster({ slots }: MadeFrom, shown: Readonly<Record<string, string>>, media: Piece['media']): Roster {
  const cellOf = (slot: Slot): string => {
    const value = shown[slot.id] ?? '';
    if (!showsPicture(slot)) return value;
    return value === slot.sample ? '' : nameOfPicture(value, media);
  };
  return {
    columns: slots.map(({ name }) => name),
    rows: [rosterRow(slots.map(cellOf))],
    mapping: Object.fromEntries(slots.map((slot, i) => [slot.id, i])),
    beginsColumn: null,
  };
}

/** What a column of times is called. */
const BEGINS = /^(begins?( at)?|starts?( at)?|in(-| )?point|in|at|time(code)?)$/i;

/** The roster of a made group: its table, what fills its slots, and what is wrong with its rows. */
export function useRoster(group: GroupLayer, made: MadeFrom) {
  const piece = usePiece();
  const analysis = useAnalysis();
  // What the group shows when the roster is first opened; later changes on the canvas are no edits of the table.
  const [initial] = useState(() => emptyRoster(made, slotValues(piece.layers, group), piece.media));
  const kept = useKeptRoster(piece.id, group.id, initial);
  const { roster, change } = kept;
  const template = useMemo(() => templateOfGroup(piece, group.id, made, analysis), [piece, group.id, made, analysis]);
  const { media, wardrobe, frameRate, layers } = piece;
  const shown = useMemo(() => slotValues(layers, group), [layers, group]);
  const pictureOf = useMemo(() => pictureNamed({ media, wardrobe }), [media, wardrobe]);
  const values = useMemo(
    () => roster.rows.map(({ cells }) => valuesOf(cells, roster.mapping, made.slots, pictureOf)),
    [roster, made.slots, pictureOf],
  );
  const plain = useMemo(
    () => plainProblems(roster, made.slots, pictureOf, frameRate, shown),
    [roster, made.slots, pictureOf, frameRate, shown],
  );
  const [set, setSet] = useState<ReadonlyMap<number, readonly RowProblem[]>>(new Map());
  useEffect(() => {
    const abort = new AbortController();
    const found = new Map<number, readonly RowProblem[]>();
    const show = () => setSet(new Map(found));
    // What is typed is looked at once it rests.
    const waits = setTimeout(() => {
      void checkRows(
        template,
        piece,
        values,
        made.slots,
        (row, problems) => {
          found.set(row, problems);
          if (row % 20 === 0 || row === values.length - 1) show();
        },
        abort.signal,
      ).catch(() => {}); // without a font nothing can be told of room
    }, 250);
    return () => {
      clearTimeout(waits);
      abort.abort();
    };
  }, [template, piece, values, made.slots]);
  const problems = useMemo(
    () => plain.map((row, i) => (roster.rows[i]?.ownPieceId ? row : [...row, ...(set.get(i) ?? [])])),
    [plain, set, roster.rows],
  );
  /** Takes a table over. @returns why not, in words; null if it was. */
  const take = (text: string): string | null => {
    const first = readTable(text, false);
    if (!first.ok) return first.why;
    const read = looksLikeHeader(first.table.rows[0] ?? [], made.slots) ? readTable(text, true) : first;
    if (!read.ok) return read.why;
    const mapping = { ...matchColumns(read.table, made.slots) };
    const used = new Set(Object.values(mapping));
    const begins = read.table.columns.findIndex((name, i) => !used.has(i) && BEGINS.test(name.trim()));
    change({
      columns: [...read.table.columns],
      rows: read.table.rows.map(rosterRow),
      mapping,
      beginsColumn: begins < 0 ? null : begins,
    });
    return null;
  };
  const left = useMemo(() => unmatched(roster, made.slots, shown), [roster, made.slots, shown]);
  return { ...kept, take, values, problems, left, looked: set.size, template };
}
