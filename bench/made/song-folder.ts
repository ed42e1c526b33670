import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** A folder of songs in the form of the beat kit. */
export interface SongFolder {
  readonly folder: string;
  readonly wavOf: (name: string) => string;
  readonly truthOf: (name: string) => string;
  readonly writeTruth: (name: string, truth: object) => void;
}

/** The folder that the command line names, made if it isn't there. Throws if it names none. */
export function namedSongFolder(): SongFolder {
  const folder = process.argv[2];
  if (!folder) throw new Error('say where the songs shall be written');
  for (const part of ['wav', 'truth']) mkdirSync(join(folder, part), { recursive: true });
  const truthOf = (name: string) => join(folder, 'truth', `${name}.json`);
  return {
    folder,
    wavOf: (name) => join(folder, 'wav', `${name}.wav`),
    truthOf,
    writeTruth: (name, truth) => writeFileSync(truthOf(name), JSON.stringify(truth)),
  };
}
