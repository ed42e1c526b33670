import nspell from 'nspell';
import { DICTIONARIES, spellingOf } from '@core/checks';
import type { Spelling } from '@core/checks';

let loaded: Promise<Spelling> | null = null;

async function read(name: string, end: 'aff' | 'dic'): Promise<string> {
  const response = await fetch(`/dictionaries/${name}.${end}`);
  if (!response.ok) throw new Error(`the dictionary ${name} is not there`);
  return response.text();
}

/** The dictionaries that ship with the app, read once a worker; tried again after a failure. */
export function browserSpelling(): Promise<Spelling> {
  loaded ??= Promise.all(
    DICTIONARIES.map(async (name) => nspell(await read(name, 'aff'), await read(name, 'dic'))),
  ).then(spellingOf);
  loaded.catch(() => (loaded = null));
  return loaded;
}
