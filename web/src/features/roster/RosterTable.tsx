import { Box, Input, Span } from '@chakra-ui/react';
import { flexRender, getCoreRowModel, useReactTable } from '@tanstack/react-table';
import type { ColumnDef } from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useRef } from 'react';
import type { Slot } from '@core/piece';
import type { Roster, RowProblem } from '@core/roster';
import { Button } from '../../ui/Button';
import type { RowFile } from './use-row-files';
import { RowState } from './RowState';
import { WORDS } from './words';

const ROW_HEIGHT = 38;
const OVERSCAN = 6;

interface Line {
  readonly index: number;
  readonly cells: readonly string[];
}

/** A column of cells that can be typed in; none if nothing of the table is in it. */
function cellColumn(
  id: string,
  header: string,
  at: number | undefined,
  onCell: (row: number, column: number, value: string) => void,
  onChoose: (row: number) => void,
): ColumnDef<Line>[] {
  if (at === undefined) return [];
  return [
    {
      id,
      header,
      cell: ({ row: { original } }) => (
        <Input
          aria-label={WORDS.cell(header, original.index + 1)}
          value={original.cells[at] ?? ''}
          width="100%"
          onFocus={() => onChoose(original.index)}
          onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}
          onChange={(e) => onCell(original.index, at, e.target.value)}
        />
      ),
    },
  ];
}

/** The rows: a column for each slot that is filled by one, and what is wrong. Only rows near those seen are drawn. */
export function RosterTable({
  roster,
  slots,
  problems,
  files,
  chosen,
  onChoose,
  onCell,
  onRemove,
}: {
  roster: Roster;
  slots: readonly Slot[];
  problems: readonly (readonly RowProblem[])[];
  /** Those of the rows, in the order of the rows. */
  files: readonly RowFile[];
  chosen: number;
  onChoose: (row: number) => void;
  onCell: (row: number, column: number, value: string) => void;
  onRemove: (row: number) => void;
}) {
  const scroller = useRef<HTMLDivElement>(null);
  const lines = useMemo(() => roster.rows.map(({ cells }, index): Line => ({ index, cells })), [roster.rows]);
  const columns = useMemo(
    (): ColumnDef<Line>[] => [
      { id: 'row', header: '', cell: ({ row }) => <span className="mono muted">{row.original.index + 1}</span> },
      ...slots.flatMap((slot) => cellColumn(slot.id, slot.name, roster.mapping[slot.id], onCell, onChoose)),
      ...cellColumn('begins', WORDS.beginsAt, roster.beginsColumn ?? undefined, onCell, onChoose),
    ],
    [slots, roster.mapping, roster.beginsColumn, onCell, onChoose],
  );
  const table = useReactTable({ data: lines, columns, getCoreRowModel: getCoreRowModel() });
  const { rows } = table.getRowModel();
  const byRow = useMemo(() => {
    const out = new Map<number, RowFile[]>();
    for (const file of files) out.set(file.row, [...(out.get(file.row) ?? []), file]);
    return out;
  }, [files]);
  const seen = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: OVERSCAN,
  });
  const width = `34px repeat(${columns.length - 1}, minmax(110px, 1fr)) minmax(120px, 1.2fr) 34px`;
  return (
    <Box
      ref={scroller}
      overflow="auto"
      height="100%"
      role="table"
      aria-label={WORDS.table}
      aria-rowcount={rows.length + 1}
    >
      <Box role="rowgroup">
        {table.getHeaderGroups().map((head) => (
          <Box key={head.id} role="row" display="grid" gridTemplateColumns={width} gap="6px" className="roster-head">
            {head.headers.map((cell) => (
              <Box key={cell.id} role="columnheader">
                {flexRender(cell.column.columnDef.header, cell.getContext())}
              </Box>
            ))}
          </Box>
        ))}
      </Box>
      <Box role="rowgroup" position="relative" style={{ height: seen.getTotalSize() }}>
        {seen.getVirtualItems().map(({ key, index, start }) => {
          const row = rows[index]!; // the window is over the rows
          const wrong = problems[index] ?? [];
          return (
            <Box
              key={key}
              role="row"
              aria-rowindex={index + 2}
              aria-selected={index === chosen}
              aria-label={WORDS.row(index + 1)}
              className="roster-row"
              display="grid"
              gridTemplateColumns={width}
              gap="6px"
              alignItems="center"
              position="absolute"
              left="0"
              right="0"
              style={{ top: start, height: ROW_HEIGHT }}
              onClick={() => onChoose(index)}
            >
              {row.getVisibleCells().map((cell) => (
                <Box key={cell.id} role="cell">
                  {flexRender(cell.column.columnDef.cell, cell.getContext())}
                </Box>
              ))}
              <Box role="cell" fontSize="12px" lineHeight="1.2" overflow="hidden">
                {wrong.length > 0 ? (
                  <Span color={wrong.every(({ isNote }) => isNote) ? 'lamp' : 'ember'}>
                    {wrong.map(({ text }) => text).join('; ')}
                  </Span>
                ) : (
                  <RowState files={byRow.get(index) ?? []} isOwn={roster.rows[index]?.ownPieceId != null} />
                )}
              </Box>
              <Box role="cell">
                <Button
                  variant="quiet"
                  padding="0 6px"
                  aria-label={WORDS.removeRow(index + 1)}
                  onClick={() => onRemove(index)}
                >
                  ×
                </Button>
              </Box>
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}
