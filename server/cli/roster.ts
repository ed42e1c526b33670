import { mkdir, readFile, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { EXPORT_KINDS } from '@core/formats';
import { DESTINATIONS, createPiece, posterSeconds, prepareTemplate, resolveTimes } from '@core/piece';
import type { Piece, Slot } from '@core/piece';
import {
  decodeTable,
  fileNames,
  looksLikeHeader,
  matchColumns,
  nameFrom,
  pictureNamed,
  readTable,
  valuesOf,
} from '@core/roster';
import type { Table } from '@core/roster';
import { FRAME_RATES } from '@core/time';
import { templateNamed } from './project-files';
import { progressOn } from './progress';
import { exportTo, kindNamed, withPiece } from './render';
import type { LoadedPiece } from './render';
import { UsageError } from './usage';

const MAX_TABLE_BYTES = 40e6;

export interface RosterOptions {
  readonly template: string;
  readonly out: string;
  /** A project file whose formats, wardrobe and pictures are used. */
  readonly piece?: string | undefined;
  readonly format?: string | undefined;
  readonly kind: string;
  /** Of the files, with slot names in braces. */
  readonly names: string;
  readonly json: boolean;
}

async function tableOf(file: string, slots: readonly Slot[]): Promise<Table> {
  const { size } = await stat(file);
  if (size > MAX_TABLE_BYTES) throw new Error(`${file} is larger than ${MAX_TABLE_BYTES / 1e6} MB`);
  const text = decodeTable(await readFile(file));
  const bare = readTable(text, false);
  if (!bare.ok) throw new Error(`${file}: ${bare.why}`);
  const read = readTable(text, looksLikeHeader(bare.table.rows[0] ?? [], slots));
  if (!read.ok) throw new Error(`${file}: ${read.why}`);
  return read.table;
}

const plainSurroundings = (): LoadedPiece => {
  const { width, height } = DESTINATIONS.wide;
  const formats = [{ id: 'wide', name: 'Wide', width, height }];
  let ids = 0;
  const piece = createPiece({ name: 'Roster', formats, frameRate: FRAME_RATES['30'] }, () => `roster-${++ids}`);
  return { piece, analysis: null, files: {}, songFile: null, originals: {} };
};

/** One row: the file it becomes, or why it can't be made. */
interface RowResult {
  readonly row: number;
  readonly file?: string;
  readonly problem?: string;
}

/**
 * Exports one file for each row of a table, filled into a template. A row that can't be made holds up no other.
 * @returns whether every row was exported.
 */
export async function roster(tableFile: string, options: RosterOptions): Promise<boolean> {
  const template = templateNamed(options.template);
  const slots = template.template?.slots ?? [];
  const table = await tableOf(tableFile, slots);
  const kind = kindNamed(options.kind);
  if (EXPORT_KINDS[kind].isFormatless) throw new UsageError(`--kind ${kind} has no picture; choose another kind`);
  await mkdir(options.out, { recursive: true });
  const run = (around: LoadedPiece) => exportRows(around, template, table, options);
  const results = options.piece ? await withPiece(options.piece, run) : await run(plainSurroundings());
  const failed = results.filter(({ problem }) => problem !== undefined);
  if (options.json) console.log(JSON.stringify({ rows: results }));
  else {
    for (const { row, problem } of failed) console.error(`row ${row}: ${problem}`);
    console.log(`${results.length - failed.length} of ${results.length} rows exported: ${options.out}`);
  }
  return failed.length === 0;
}

async function exportRows(
  around: LoadedPiece,
  template: Piece,
  table: Table,
  { out, format, kind: kindText, names: pattern }: RosterOptions,
): Promise<RowResult[]> {
  const slots = template.template?.slots ?? [];
  const kind = kindNamed(kindText);
  const mapping = matchColumns(table, slots);
  const fill = prepareTemplate(template, around.piece);
  const pictureOf = pictureNamed(around.piece);
  const values = table.rows.map((cells) => valuesOf(cells, mapping, slots, pictureOf));
  const names = fileNames(
    values.map((row, i) =>
      nameFrom(pattern, {
        ...Object.fromEntries(slots.map((slot) => [slot.name, row[slot.id] ?? ''])),
        row: String(i + 1),
        template: template.name,
      }),
    ),
    (i) => `${template.name} ${i + 1}`,
  );
  const tell = progressOn(process.stderr, 'exporting rows');
  const results: RowResult[] = [];
  for (const [i, row] of values.entries()) {
    const piece = fill(row);
    const file = join(out, `${names[i] ?? i + 1}.${EXPORT_KINDS[kind].extension}`);
    try {
      if (!piece) throw new Error('the template can’t be filled');
      // A still shows the row when all of it has come in.
      const at = posterSeconds(piece, resolveTimes(piece, null));
      await exportTo({ ...around, piece, analysis: null, songFile: null }, kind, format, file, { at });
      results.push({ row: i + 1, file });
    } catch (error) {
      if (error instanceof UsageError) throw error;
      results.push({ row: i + 1, problem: error instanceof Error ? error.message : String(error) });
    }
    tell((i + 1) / values.length);
  }
  return results;
}
