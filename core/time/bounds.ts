import * as z from 'zod';

/**
 * Bounds of what may stand in a document. They lie far beyond what a piece needs, and near enough that nothing computed
 * from numbers within them overflows, loops for minutes or fills the memory.
 */
/** Ten hours: a song of an hour, trimmed, moved and counted on at both ends, stays inside. */
export const MAX_SECONDS = 36_000;
export const MAX_BEATS = 1_000_000;
/** Pixels, degrees, factors. */
export const MAX_NUMBER = 1_000_000;

export const secondsSchema = z.number().min(-MAX_SECONDS).max(MAX_SECONDS);
export const lengthSchema = z.number().min(0).max(MAX_SECONDS);
export const beatsSchema = z.number().min(-MAX_BEATS).max(MAX_BEATS);
export const numberSchema = z.number().min(-MAX_NUMBER).max(MAX_NUMBER);

/** Names that every object has: a table or a record asked for one of them would answer with a function. */
const isOwnName = (name: string): boolean => !(name in Object.prototype);

export const idSchema = z.string().min(1).max(64).refine(isOwnName, 'this name is taken by the language itself');

const LONE_SURROGATE = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g;

/**
 * Text as any store can keep it: without U+0000, and with a replacement character for half a surrogate pair (RFC 8259,
 * 8.2, leaves both to chance).
 */
export const cleanText = (text: string): string => text.replaceAll('\0', '').replace(LONE_SURROGATE, '\uFFFD');

/** Text from outside, cleaned, of at most `max` UTF-16 units. */
export const textSchema = (max: number) => z.string().overwrite(cleanText).max(max);

/** The entry of a table by a name that came from outside; undefined if the table itself has none. */
export function ownEntry<T>(table: Readonly<Record<string, T>>, name: string): T | undefined {
  return Object.hasOwn(table, name) ? table[name] : undefined;
}
