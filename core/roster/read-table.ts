import Papa from 'papaparse';

/** Bounds of a table from outside. */
export const MAX_ROWS = 10_000;
export const MAX_COLUMNS = 64;
export const MAX_CELL = 5000;
const MAX_TEXT = 20_000_000;

export interface Table {
  /** What the columns are called, each once. */
  readonly columns: readonly string[];
  /** As many cells as there are columns. */
  readonly rows: readonly (readonly string[])[];
}

export type Read = { readonly ok: true; readonly table: Table } | { readonly ok: false; readonly why: string };

const swapped = (bytes: Uint8Array): Uint8Array => {
  const out = new Uint8Array(bytes.length & ~1);
  for (let i = 0; i + 1 < bytes.length; i += 2) [out[i], out[i + 1]] = [bytes[i + 1]!, bytes[i]!];
  return out;
};

/**
 * The text of a file: UTF-16 by its mark or by its zero bytes, else UTF-8; what is no UTF-8 is read as Windows-1252, which
 * spreadsheets still write. @see WHATWG Encoding.
 */
export function decodeTable(bytes: Uint8Array): string {
  const zeros = [0, 1].map((side) => {
    const some = bytes.subarray(0, 4000).filter((_, i) => i % 2 === side);
    return some.filter((byte) => byte === 0).length / Math.max(1, some.length);
  });
  const isBig = (bytes[0] === 0xfe && bytes[1] === 0xff) || (zeros[0]! > 0.3 && zeros[1]! < 0.1);
  const isLittle = (bytes[0] === 0xff && bytes[1] === 0xfe) || (zeros[1]! > 0.3 && zeros[0]! < 0.1);
  if (isBig || isLittle) return new TextDecoder('utf-16le').decode(isBig ? swapped(bytes) : bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

const tidy = (cell: string): string =>
  cell
    .replace(/\r\n?/g, '\n')
    // eslint-disable-next-line no-control-regex -- what no text may hold
    .replace(/[\u0000-\u0008\u000b-\u001f\u007f]/g, '')
    .trim();

/** Names that are there twice get a number. */
function named(cells: readonly string[], count: number): string[] {
  const taken = new Set<string>();
  return Array.from({ length: count }, (_, i) => {
    const plain = (cells[i] ?? '').slice(0, 80) || `Column ${i + 1}`;
    let name = plain;
    for (let n = 2; taken.has(name); n++) name = `${plain} ${n}`;
    taken.add(name);
    return name;
  });
}

/**
 * Reads a table as it was pasted or saved by a spreadsheet: any delimiter, quotes, lines within cells (RFC 4180).
 * @param hasHeader - whether the first row names the columns.
 */
export function readTable(text: string, hasHeader: boolean): Read {
  if (text.length > MAX_TEXT) return { ok: false, why: 'The table is larger than 20 MB.' };
  const { data } = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { skipEmptyLines: 'greedy' });
  const cells = data.map((row) => row.map(tidy));
  const width = Math.max(0, ...cells.map((row) => row.length));
  if (cells.length === 0 || width === 0) return { ok: false, why: 'There is no table in it.' };
  if (width > MAX_COLUMNS) return { ok: false, why: `The table has ${width} columns; ${MAX_COLUMNS} are the most.` };
  const body = hasHeader ? cells.slice(1) : cells;
  if (body.length > MAX_ROWS)
    return { ok: false, why: `The table has ${body.length} rows; ${MAX_ROWS.toLocaleString('en')} are the most.` };
  const long = body.findIndex((row) => row.some((cell) => cell.length > MAX_CELL));
  if (long >= 0) return { ok: false, why: `A cell of row ${long + 1} has more than ${MAX_CELL} letters.` };
  return {
    ok: true,
    table: {
      columns: named(hasHeader ? cells[0]! : [], width),
      rows: body.map((row) => Array.from({ length: width }, (_, i) => row[i] ?? '')),
    },
  };
}
