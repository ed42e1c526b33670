export { MAX_CELL, MAX_COLUMNS, MAX_ROWS, decodeTable, readTable } from './read-table';
export type { Read, Table } from './read-table';
export { looksLikeHeader, matchColumns, valuesOf } from './columns';
export type { Mapping } from './columns';
export { pictureNamed } from './pictures';
export { plainProblems } from './problems';
export type { RowProblem } from './problems';
export { setRows } from './set-rows';
export type { SetRows } from './set-rows';
