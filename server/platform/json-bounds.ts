/**
 * What JSON from outside may be like, found out in one pass over its bytes before anything is made of it: parsing a
 * file of some kilobytes can otherwise cost minutes and gigabytes, since a bracket is a byte and an object is not.
 */

export interface JsonBounds {
  /** How deep lists and objects may lie in one another. */
  readonly depth: number;
  /** Keys of one object, and entries of one list. */
  readonly keys: number;
  readonly entries: number;
  /** Lists and objects in all. */
  readonly containers: number;
}

/** What the fullest piece, roster and analysis stay well within. */
export const JSON_BOUNDS: JsonBounds = { depth: 100, keys: 5000, entries: 2_000_000, containers: 1_000_000 };

const [QUOTE, BACKSLASH, COMMA] = [0x22, 0x5c, 0x2c];
const [OPEN_LIST, CLOSE_LIST, OPEN_OBJECT, CLOSE_OBJECT] = [0x5b, 0x5d, 0x7b, 0x7d];

/**
 * Looks for what exceeds the bounds. It does not parse: whether the text is JSON at all is told by the parser, which
 * stops at the first mistake.
 * @param bytes - UTF-8.
 * @returns what is exceeded, in words; null if nothing is.
 */
export function exceededJson(bytes: Uint8Array, bounds: JsonBounds = JSON_BOUNDS): string | null {
  const isObject = new Uint8Array(bounds.depth + 1);
  const commas = new Uint32Array(bounds.depth + 1);
  let [depth, containers] = [0, 0];
  for (let i = 0; i < bytes.length; i++) {
    switch (bytes[i]) {
      case QUOTE:
        for (i++; i < bytes.length && bytes[i] !== QUOTE; i++) if (bytes[i] === BACKSLASH) i++;
        break;
      case OPEN_LIST:
      case OPEN_OBJECT:
        if (++depth > bounds.depth) return `it is more than ${bounds.depth} levels deep`;
        if (++containers > bounds.containers) return `it has more than ${bounds.containers.toLocaleString('en')} parts`;
        isObject[depth] = bytes[i] === OPEN_OBJECT ? 1 : 0;
        commas[depth] = 0;
        break;
      case CLOSE_LIST:
      case CLOSE_OBJECT:
        if (depth > 0) depth--;
        break;
      case COMMA: {
        const count = ++commas[depth]! + 1;
        const most = isObject[depth] === 1 ? bounds.keys : bounds.entries;
        if (count > most)
          return `one of its ${isObject[depth] === 1 ? 'objects' : 'lists'} has more than ${most.toLocaleString('en')} entries`;
        break;
      }
      default: // nothing that is counted
    }
  }
  return null;
}
