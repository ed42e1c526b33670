/**
 * Marks for lower thirds and end cards: plain glyphs of our own for where a name is found. Each is drawn in a box of 100 by
 * 100.
 */
export const MARK_BOX: [number, number] = [100, 100];

export const MARKS = {
  kite: { label: 'Kite', d: 'M50 4L86 42L50 96L14 42ZM50 4L50 96L54 96L54 4Z' },
  sail: {
    label: 'Sail',
    d: 'M54 6C72 24 82 44 84 66L54 66ZM46 16L46 66L18 66C30 52 40 34 46 16ZM10 74L90 74C86 88 76 94 62 94L36 94C22 94 14 88 10 74Z',
  },
  lantern: {
    label: 'Lantern',
    d: 'M42 4L58 4L58 16L42 16ZM28 20L72 20L78 30L22 30ZM26 34L74 34L68 82L32 82ZM44 44L44 72L56 72L56 44ZM24 86L76 86L76 96L24 96Z',
  },
  ripple: {
    label: 'Ripple',
    d: 'M6 30C20 16 34 16 50 30C66 44 80 44 94 30L94 44C80 58 66 58 50 44C34 30 20 30 6 44ZM6 56C20 42 34 42 50 56C66 70 80 70 94 56L94 70C80 84 66 84 50 70C34 56 20 56 6 70Z',
  },
  buoy: {
    label: 'Buoy',
    d: 'M50 4A46 46 0 1 1 50 96A46 46 0 1 1 50 4ZM50 32A18 18 0 1 0 50 68A18 18 0 1 0 50 32ZM44 4L56 4L56 24L44 24ZM44 76L56 76L56 96L44 96Z',
  },
  bell: {
    label: 'Bell',
    d: 'M44 4L56 4L56 14C72 17 80 30 80 46L80 66L92 80L8 80L20 66L20 46C20 30 28 17 44 14ZM38 84L62 84C62 92 57 96 50 96C43 96 38 92 38 84Z',
  },
  compass: {
    label: 'Compass',
    d: 'M50 2L60 40L98 50L60 60L50 98L40 60L2 50L40 40ZM50 42A8 8 0 1 0 50 58A8 8 0 1 0 50 42Z',
  },
  pier: {
    label: 'Pier',
    d: 'M6 34L94 34L94 46L86 46L86 94L74 94L74 46L56 46L56 94L44 94L44 46L26 46L26 94L14 94L14 46L6 46ZM46 6L54 6L54 34L46 34ZM54 8L78 15L54 22Z',
  },
  letter: { label: 'Letter', d: 'M6 22L94 22L50 58ZM6 32L50 68L94 32L94 80L6 80Z' },
  place: {
    label: 'Place',
    d: 'M50 4C70 4 84 18 84 37C84 58 62 74 50 96C38 74 16 58 16 37C16 18 30 4 50 4ZM50 24A13 13 0 1 0 50 50A13 13 0 1 0 50 24Z',
  },
  call: {
    label: 'Call',
    d: 'M10 22C10 14 16 8 24 8L76 8C84 8 90 14 90 22L90 58C90 66 84 72 76 72L48 72L26 94L26 72L24 72C16 72 10 66 10 58ZM28 34L28 46L40 46L40 34ZM60 34L60 46L72 46L72 34Z',
  },
  signal: {
    label: 'Signal',
    d: 'M8 60L22 60L22 92L8 92ZM31 44L45 44L45 92L31 92ZM54 26L68 26L68 92L54 92ZM77 8L91 8L91 92L77 92Z',
  },
} as const;
export type MarkId = keyof typeof MARKS;

const PREFIX = 'mark:';
/** How a slot names a mark. */
export const markValue = (id: MarkId): string => `${PREFIX}${id}`;

/** The mark that a slot's value names; null if it names none. */
export function markOf(value: string): (typeof MARKS)[MarkId] | null {
  const id = value.startsWith(PREFIX) ? value.slice(PREFIX.length) : '';
  return Object.hasOwn(MARKS, id) ? MARKS[id as MarkId] : null; // a key of the table
}
