import { create } from 'zustand';
import type { MediaKindId } from '@core/piece';
import { newId } from '../../platform/ids';
import { importFile, importPlace } from './import-file';

/**
 * Files on their way into the piece. They go on whatever panel is open, and every one is shown until it is there: in the
 * place it was dropped on, and in the header.
 */

export interface Import {
  readonly id: string;
  readonly name: string;
  /** The kinds of media that the place it was dropped on takes. */
  readonly wanted: readonly MediaKindId[] | 'any';
  /** What is being done, for people; null while it waits for those before it. */
  readonly stage: string | null;
  readonly share: number;
  readonly cancel: () => void;
}

export const useImports = create<{ readonly list: readonly Import[] }>(() => ({ list: [] }));

const change = (id: string, changes: Partial<Import>): void =>
  useImports.setState(({ list }) => ({ list: list.map((one) => (one.id === id ? { ...one, ...changes } : one)) }));

let before: Promise<void> = Promise.resolve();

/**
 * Takes files in, one after another in the order in which they are given, at the place in time where the playhead stands
 * now. @returns when all are there, or were told why not.
 */
export function importFiles(files: readonly File[], wanted: readonly MediaKindId[] | 'any' = 'any'): Promise<void> {
  const place = importPlace();
  for (const file of files) {
    const id = newId();
    const abort = new AbortController();
    const entry: Import = { id, name: file.name, wanted, stage: null, share: 0, cancel: () => abort.abort() };
    useImports.setState(({ list }) => ({ list: [...list, entry] }));
    before = before.then(async () => {
      await importFile(file, wanted, (p) => p && change(id, { stage: p.stage, share: p.share }), abort.signal, place);
      useImports.setState(({ list }) => ({ list: list.filter((one) => one.id !== id) }));
    });
  }
  return before;
}
