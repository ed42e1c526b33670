import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import nspell from 'nspell';
import { DICTIONARIES, spellingOf } from '@core/checks';
import type { Spelling } from '@core/checks';
import type { Assets } from '../platform/config';

const loaded = new Map<string, Promise<Spelling>>();

/** The dictionaries that ship with the app, read once a process. */
export function serverSpelling({ dictionariesDir }: Pick<Assets, 'dictionariesDir'>): Promise<Spelling> {
  let spelling = loaded.get(dictionariesDir);
  if (!spelling) {
    const read = (name: string, end: 'aff' | 'dic') => readFile(join(dictionariesDir, `${name}.${end}`));
    spelling = Promise.all(
      DICTIONARIES.map(async (name) => nspell(await read(name, 'aff'), await read(name, 'dic'))),
    ).then(spellingOf);
    loaded.set(dictionariesDir, spelling);
  }
  return spelling;
}
