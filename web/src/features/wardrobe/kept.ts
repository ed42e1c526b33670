import { createStore, get, set } from 'idb-keyval';
import type { Wardrobe } from '@core/piece';

/** Wardrobes kept for all pieces, in this browser. */
export interface KeptWardrobe {
  readonly id: string;
  readonly name: string;
  readonly version: number;
  readonly wardrobe: Pick<Wardrobe, 'colours' | 'fonts'>;
}

const KEY = 'all';
export const MOST_KEPT = 60;
let store: ReturnType<typeof createStore> | null = null;
const place = (): ReturnType<typeof createStore> => (store ??= createStore('estrella-wardrobes', 'kept'));

export const keptWardrobes = async (): Promise<readonly KeptWardrobe[]> =>
  (await get<readonly KeptWardrobe[]>(KEY, place())) ?? [];

/** Keeps a wardrobe by its name: one of that name becomes its next version. */
export async function keepWardrobe(
  name: string,
  wardrobe: KeptWardrobe['wardrobe'],
  newId: () => string,
): Promise<readonly KeptWardrobe[]> {
  const all = await keptWardrobes();
  const old = all.find((one) => one.name === name);
  const kept: KeptWardrobe = { id: old?.id ?? newId(), name, version: (old?.version ?? 0) + 1, wardrobe };
  const next = [kept, ...all.filter((one) => one.id !== kept.id)].slice(0, MOST_KEPT);
  await set(KEY, next, place());
  return next;
}

export async function forgetWardrobe(id: string): Promise<readonly KeptWardrobe[]> {
  const next = (await keptWardrobes()).filter((one) => one.id !== id);
  await set(KEY, next, place());
  return next;
}
