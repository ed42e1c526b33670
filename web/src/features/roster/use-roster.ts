import { useEffect, useMemo, useState } from 'react';
import type { GroupLayer, MadeFrom } from '@core/piece';
import {
  looksLikeHeader,
  matchColumns,
  pictureNamed,
  plainProblems,
  readTable,
  rosterRow,
  templateOfGroup,
  valuesOf,
} from '@core/roster';
import type { Roster, RowProblem } from '@core/roster';
import { useAnalysis, usePiece } from '../../store/selectors';
import { checkRows } from './row-checks';
import { useKeptRoster } from './use-kept-roster';

/** A roster that nothing is in yet: a column for each slot, and what the group shows as its first row. */
const emptyRoster = ({ slots, values }: MadeFrom): Roster => ({
  columns: slots.map(({ name }) => name),
  rows: [rosterRow(slots.map((slot) => values[slot.id] ?? (slot.kind === 'logo' ? '' : slot.sample)))],
  mapping: Object.fromEntries(slots.map((slot, i) => [slot.id, i])),
  beginsColumn: null,
});

/** What a column of times is called. */
const BEGINS = /^(begins?( at)?|starts?( at)?|in(-| )?point|in|at|time(code)?)$/i;

/** The roster of a made group: its table, what fills its slots, and what is wrong with its rows. */
export function useRoster(group: GroupLayer, made: MadeFrom) {
  const piece = usePiece();
  const analysis = useAnalysis();
  const initial = useMemo(() => emptyRoster(made), [made]);
  const kept = useKeptRoster(piece.id, group.id, initial);
  const { roster, change } = kept;
  const template = useMemo(() => templateOfGroup(piece, group.id, made, analysis), [piece, group.id, made, analysis]);
  const { media, wardrobe, frameRate } = piece;
  const pictureOf = useMemo(() => pictureNamed({ media, wardrobe }), [media, wardrobe]);
  const values = useMemo(
    () => roster.rows.map(({ cells }) => valuesOf(cells, roster.mapping, made.slots, pictureOf)),
    [roster, made.slots, pictureOf],
  );
  const plain = useMemo(
    () => plainProblems(roster, made.slots, pictureOf, frameRate),
    [roster, made.slots, pictureOf, frameRate],
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
  return { ...kept, take, values, problems, looked: set.size, template };
}
