import type { Colour } from '../../colour';
import { DEFAULT_FAMILY } from '../../text';
import { ownEntry } from '../../time';
import type { Piece } from './schema';
import type { Wardrobe } from './wardrobe-schema';

/** Stands for a role that the wardrobe does not have. */
const UNKNOWN_COLOUR: Colour = '#808080';

const ROLE = /^@[a-z][a-z0-9-]{0,39}$/;
export const isRole = (value: string): boolean => ROLE.test(value);

/** The colour that a value of the document stands for. */
export function colourOf(wardrobe: Wardrobe, value: Colour): Colour {
  return isRole(value) ? (ownEntry(wardrobe.colours, value.slice(1)) ?? UNKNOWN_COLOUR) : value;
}

/** The family that a value of the document stands for. */
export const familyOf = (wardrobe: Wardrobe, value: string): string =>
  isRole(value) ? (ownEntry(wardrobe.fonts, value.slice(1)) ?? DEFAULT_FAMILY) : value;

/** Fields whose text is people's own: an "@name" in it is a name, not a role. */
const OWN_WORDS = new Set(['text', 'name', 'id', 'sample', 'help']);
export const isOwnWords = (field: string): boolean => OWN_WORDS.has(field);
const FONT_FIELDS = new Set(['family']);
const LOGO_FIELDS = new Set(['mediaId', 'picture']);

/** A part of the document with roles looked up; the very same object where there are none. */
function dressed<T>(value: T, field: string, wardrobe: Wardrobe): T {
  if (typeof value === 'string') {
    if (!isRole(value) || OWN_WORDS.has(field)) return value;
    if (FONT_FIELDS.has(field)) return familyOf(wardrobe, value) as T & string;
    if (LOGO_FIELDS.has(field)) return (ownEntry(wardrobe.logos, value.slice(1)) ?? value) as T & string;
    return colourOf(wardrobe, value) as T & string;
  }
  if (typeof value !== 'object' || value === null) return value;
  let changed: Record<string, unknown> | unknown[] | null = null;
  for (const [key, entry] of Object.entries(value)) {
    const next: unknown = dressed(entry as unknown, Array.isArray(value) ? field : key, wardrobe);
    if (next === entry) continue;
    changed ??= (Array.isArray(value) ? [...(value as unknown[])] : { ...value }) as Record<string, unknown>;
    (changed as Record<string, unknown>)[key] = next;
  }
  return (changed ?? value) as T; // the same shape, with other texts
}

const known = new WeakMap<object, { readonly wardrobe: Wardrobe; readonly worn: unknown }>();

/** Parts of documents are immutable and shared from edit to edit: what has been looked through is known. */
export function worn<T extends object>(part: T, wardrobe: Wardrobe): T {
  const found = known.get(part);
  if (found?.wardrobe === wardrobe) return found.worn as T; // kept under this very part
  const looked = dressed(part, '', wardrobe);
  known.set(part, { wardrobe, worn: looked });
  return looked;
}

/** The piece in its wardrobe: colours, fonts and logos in the place of their roles. The same piece if it has none. */
export function wornPiece(piece: Piece): Piece {
  const { wardrobe } = piece;
  const layers = piece.layers.map((layer) => worn(layer, wardrobe));
  const background = worn(piece.background, wardrobe);
  const sheet = worn(piece.sheet, wardrobe);
  const isSame =
    background === piece.background && sheet === piece.sheet && layers.every((layer, i) => layer === piece.layers[i]);
  return isSame ? piece : { ...piece, layers, background, sheet };
}
