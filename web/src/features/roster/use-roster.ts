import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { templateOf } from '@core/piece';
import type { GroupLayer, MadeFrom, Piece } from '@core/piece';
import { looksLikeHeader, matchColumns, pictureNamed, plainProblems, readTable, valuesOf } from '@core/roster';
import type { RowProblem } from '@core/roster';
import { newId } from '../../platform/ids';
import { usePiece, useTimes } from '../../store/selectors';
import { checkRows } from './row-checks';
import { keepRoster, keptRoster } from './roster-store';
import type { Roster } from './roster-store';

/** A roster that nothing is in yet: a column for each slot, and what the group shows as its first row. */
const emptyRoster = ({ slots, values }: MadeFrom): Roster => ({
  columns: slots.map(({ name }) => name),
  rows: [slots.map((slot) => values[slot.id] ?? (slot.kind === 'logo' ? '' : slot.sample))],
  mapping: Object.fromEntries(slots.map((slot, i) => [slot.id, i])),
});

/** The template of a made group, as it stands now. */
function useTemplate(group: GroupLayer, made: MadeFrom): Piece {
  const piece = usePiece();
  const times = useTimes();
  return useMemo(
    () =>
      templateOf(
        piece,
        group.id,
        {
          name: made.name,
          template: {
            version: made.version,
            use: 'more',
            mood: '',
            help: '',
            slots: made.slots,
            fixed: [],
            timing: made.timing,
          },
        },
        times,
        newId,
      ),
    [piece, group.id, made, times],
  );
}

/** The roster of a made group: its table, what fills its slots, and what is wrong with its rows. */
export function useRoster(group: GroupLayer, made: MadeFrom) {
  const piece = usePiece();
  const [roster, setRoster] = useState<Roster>(() => emptyRoster(made));
  const isRead = useRef(false);
  useEffect(() => {
    void keptRoster(piece.id, group.id).then((kept) => {
      if (kept && !isRead.current) setRoster(kept);
      isRead.current = true;
    });
  }, [piece.id, group.id]);
  const change = useCallback(
    (next: Roster): void => {
      isRead.current = true;
      setRoster(next);
      // Without room in the browser's store it is there as long as it is open.
      void keepRoster(piece.id, group.id, next).catch(() => {});
    },
    [piece.id, group.id],
  );
  const template = useTemplate(group, made);
  const { media, wardrobe } = piece;
  const pictureOf = useMemo(() => pictureNamed({ media, wardrobe }), [media, wardrobe]);
  const values = useMemo(
    () => roster.rows.map((row) => valuesOf(row, roster.mapping, made.slots, pictureOf)),
    [roster, made.slots, pictureOf],
  );
  const plain = useMemo(
    () => plainProblems(roster.rows, roster.mapping, made.slots, pictureOf),
    [roster, made.slots, pictureOf],
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
  const problems = useMemo(() => plain.map((row, i) => [...row, ...(set.get(i) ?? [])]), [plain, set]);
  /** Takes a table over. @returns why not, in words; null if it was. */
  const take = (text: string): string | null => {
    const first = readTable(text, false);
    if (!first.ok) return first.why;
    const read = looksLikeHeader(first.table.rows[0] ?? [], made.slots) ? readTable(text, true) : first;
    if (!read.ok) return read.why;
    change({
      columns: [...read.table.columns],
      rows: read.table.rows.map((row) => [...row]),
      mapping: { ...matchColumns(read.table, made.slots) },
    });
    return null;
  };
  return { roster, change, take, values, problems, looked: set.size, template };
}
