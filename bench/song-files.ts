import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { deserialize, serialize } from 'node:v8';
import { ANALYSIS_RATE, songFeatures } from '@core/audio';
import type { SongFeatures } from '@core/audio';
import { decodeMono, openAs } from '../server/platform/ffmpeg';

/** What is known of a song of the beat kit or of the made set. */
export interface Truth {
  readonly name: string;
  readonly family?: string;
  /** Of the kit: the package that the music is from. */
  readonly source?: string;
  readonly bpm: number;
  readonly beats: readonly number[];
  readonly downbeats: readonly number[];
  readonly downbeatsTrusted: boolean;
}

export const KIT_FOLDER = process.env['BEATBENCH_DIR'] ?? '/tmp/beatbench';

/** Folders of songs with their truth: the beat kit, its variants and the made songs where they are there. */
export const SONG_FOLDERS: readonly string[] = [
  KIT_FOLDER,
  process.env['MADE_DIR'] ?? '/tmp/made',
  process.env['GROOVES_DIR'] ?? '/tmp/grooves',
  process.env['VARIANTS_DIR'] ?? '/tmp/variants',
].filter((folder) => existsSync(join(folder, 'truth')));

export interface SongFile {
  readonly folder: string;
  readonly truth: Truth;
}

export const songFiles = (folders: readonly string[] = SONG_FOLDERS): SongFile[] =>
  folders.flatMap((folder) =>
    readdirSync(join(folder, 'truth'))
      .filter((n) => n.endsWith('.json'))
      .sort()
      .map((n) => ({ folder, truth: JSON.parse(readFileSync(join(folder, 'truth', n), 'utf8')) as Truth })),
  );

export const SETS = ['kit', 'variants', 'styles', 'cases', 'grooves'] as const;

/** Behind it, in its name, a song of the kit says which variant it is. */
export const VARIANT_MARK = '~';
/** The song that a song is a variant of, or itself. */
export const originOf = (name: string): string => name.split(VARIANT_MARK)[0]!;
export const isVariant = (name: string): boolean => originOf(name) !== name;

/** Which of the sets a song belongs to. */
export function setOf({ name, family }: { readonly name: string; readonly family: string }): (typeof SETS)[number] {
  if (family.startsWith('kit')) return isVariant(name) ? 'variants' : 'kit';
  if (family.startsWith('case')) return 'cases';
  return family.startsWith('groove') ? 'grooves' : 'styles';
}

/** Songs of one family are judged by weights that have seen none of them; the kit's are families by their source. */
export const familyOf = ({ truth }: SongFile): string => truth.family ?? `kit: ${truth.source ?? ''}`;

/**
 * The features of a song's file. Where BEAT_CACHE names a folder they are kept there, so that work on what comes behind
 * them doesn't wait for them; it is emptied by hand when they change.
 */
export async function featuresOf({ folder, truth }: SongFile): Promise<SongFeatures> {
  const cache = process.env['BEAT_CACHE'];
  const key =
    cache && join(cache, `${createHash('sha256').update(`${folder}/${truth.name}`).digest('hex').slice(0, 16)}.v8`);
  if (key && existsSync(key)) return deserialize(readFileSync(key)) as SongFeatures;
  const samples = await decodeMono(openAs('wav', join(folder, 'wav', `${truth.name}.wav`)), ANALYSIS_RATE, {
    maxSeconds: 600,
    limitMs: 60_000,
  });
  const features = songFeatures(samples);
  if (key) {
    mkdirSync(cache, { recursive: true });
    writeFileSync(key, serialize(features));
  }
  return features;
}
