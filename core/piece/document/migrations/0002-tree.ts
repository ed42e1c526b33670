import type { Json } from './index';

const listOf = (value: unknown): readonly unknown[] => (Array.isArray(value) ? value : []);
const isRecord = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * Version 1 to 2. The music's `gain` became `volume`, a track; a layer may belong to a group. Everything else that
 * version 2 can hold begins empty. Tracks that say no more than their kind are dropped by the door, as always.
 */
export function toVersion2(document: Json): Json {
  const { music } = document;
  const migrated: Record<string, unknown> = { ...document, version: 2 };
  if (isRecord(music)) {
    const { gain, ...rest } = music;
    migrated.music = { ...rest, ...(gain === undefined ? {} : { volume: { value: gain, keyframes: [] } }) };
  }
  migrated.layers = listOf(document.layers).map((layer) => (isRecord(layer) ? { ...layer, parentId: null } : layer));
  return migrated;
}
