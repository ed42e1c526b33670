import { createStore, get, set } from 'idb-keyval';
import type { KeptWardrobe, Piece, Wardrobe } from '@core/piece';
import { api, call } from '../../platform/api';

/** Wardrobes kept for all pieces, on the server. */
export const keptWardrobes = async (): Promise<readonly KeptWardrobe[]> =>
  (await call(api.kept.wardrobes.$get())).wardrobes;

/** Keeps a wardrobe by its name: one of that name becomes its next version. */
export async function keepWardrobe(
  name: string,
  { wardrobe, media }: Pick<Piece, 'wardrobe' | 'media'>,
): Promise<readonly KeptWardrobe[]> {
  const { from: _from, ...kept } = wardrobe;
  const used = new Set(Object.values(kept.logos));
  const body = { wardrobe: kept, media: media.filter(({ id }) => used.has(id)) };
  await call(api.kept.wardrobes.$post({ json: { name, body } }));
  return keptWardrobes();
}

export async function forgetWardrobe(id: string): Promise<readonly KeptWardrobe[]> {
  await call(api.kept.wardrobes[':id'].$delete({ param: { id } }));
  return keptWardrobes();
}

interface LocalWardrobe {
  readonly name: string;
  readonly wardrobe: Pick<Wardrobe, 'colours' | 'fonts'>;
}
/** Where they were before the server kept them. */
const PLACE = ['estrella-wardrobes', 'kept'] as const;
const KEY = 'all';

/** Brings to the server what this browser kept, once. */
export async function bringOver(): Promise<readonly KeptWardrobe[]> {
  const there = await keptWardrobes();
  const place = createStore(...PLACE);
  const here = (await get<readonly LocalWardrobe[]>(KEY, place)) ?? [];
  if (here.length === 0) return there;
  for (const { name, wardrobe } of [...here].reverse())
    if (!there.some((one) => one.name === name))
      await call(
        api.kept.wardrobes.$post({
          json: {
            name,
            body: { wardrobe: { colours: wardrobe.colours, fonts: wardrobe.fonts, logos: {} }, media: [] },
          },
        }),
      );
  await set(KEY, [], place);
  return keptWardrobes();
}
