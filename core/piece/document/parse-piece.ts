import type { Track } from '../../motion';
import { MIGRATIONS } from './migrations';
import type { Json } from './migrations';
import { clampValue } from './properties';
import type { PropertyId } from './properties';
import { LISTS, LIST_IDS, PIECE_VERSION, pieceSchema, repeatedId } from './schema';
import type { Layer } from './layer-schema';
import type { Piece } from './schema';
import { exceededTotal } from './totals';
import { dropStandingTracks } from './tracks';
import { brokenReference } from './tree';

/** What can be wrong with a document that arrives from outside. */
export type PieceProblem = { code: 'NOT_A_PIECE' | 'UNKNOWN_VERSION' | 'INVALID'; detail: string };

const invalid = (detail: string): { ok: false; problem: PieceProblem } => ({
  ok: false,
  problem: { code: 'INVALID', detail: detail.slice(0, 300) },
});

/** Values within what their properties allow: a bound that came later must not make an older piece unreadable. */
function clampTracks(layer: Layer): void {
  const entries = Object.entries(layer.tracks) as [PropertyId, Track | undefined][]; // keys of the schema
  for (const [property, track] of entries) {
    if (!track) continue;
    track.value = clampValue(property, track.value);
    for (const key of track.keyframes) key.value = clampValue(property, key.value);
  }
}

/** Brings a document of an earlier version, which is known, up to this one, step by step. */
function migrated(input: Json): Json {
  let document = input;
  while (document.version !== PIECE_VERSION) {
    document = MIGRATIONS[document.version as number]!(document); // each leads to the next, up to this one
  }
  return document;
}

/** Keys that an object of a piece has at most: no version had half as many. */
const MAX_KEYS = 100;
const keyCount = (value: unknown): number =>
  typeof value === 'object' && value !== null ? Object.keys(value).length : 0;

/** What no version of a piece ever was, in words: refused before a migration copies it. */
function strangeShape(input: Json): string | null {
  if (keyCount(input) > MAX_KEYS) return 'it has more fields than a piece has';
  for (const list of LIST_IDS) {
    const entries = input[list];
    if (entries === undefined) continue;
    if (!Array.isArray(entries)) return `${list}: is no list`;
    const strange = entries.slice(0, LISTS[list].most).findIndex((entry) => keyCount(entry) > MAX_KEYS);
    if (strange >= 0) return `${list}.${strange}: it has more fields than there are`;
  }
  return 'layers' in input ? null : 'layers: is no list';
}

function longList(input: Json): string | null {
  for (const list of LIST_IDS) {
    const entries = input[list];
    if (Array.isArray(entries) && entries.length > LISTS[list].most)
      return `a piece holds at most ${LISTS[list].most} ${LISTS[list].label}`;
  }
  return null;
}

/**
 * Parses a document of any known version. The one door through which documents come in: from files, from the network,
 * from storage. What it gives back is of this version and holds no track that says no more than its kind.
 */
export function parsePiece(input: unknown): { ok: true; piece: Piece } | { ok: false; problem: PieceProblem } {
  if (typeof input !== 'object' || input === null || !('version' in input))
    return { ok: false, problem: { code: 'NOT_A_PIECE', detail: 'it has no version' } };
  const { version } = input;
  if (version !== PIECE_VERSION && !(typeof version === 'number' && MIGRATIONS[version]))
    return { ok: false, problem: { code: 'UNKNOWN_VERSION', detail: String(version).slice(0, 40) } };
  const strange = strangeShape(input as Json);
  if (strange) return invalid(strange);
  // Counted before anything is copied or validated: that costs little whatever stands in it.
  const tooMuch = longList(input as Json) ?? exceededTotal(input); // an object: told apart just now
  if (tooMuch) return invalid(tooMuch);
  const document = migrated(input as Json);
  const parsed = pieceSchema.safeParse(document);
  if (!parsed.success) {
    const issue = parsed.error.issues[0];
    return invalid(issue ? `${issue.path.join('.')}: ${issue.message}` : 'unreadable');
  }
  const piece = parsed.data;
  if (!piece.formats.some((f) => f.id === piece.leadFormatId)) return invalid('leadFormatId: names no format');
  const broken = repeatedId(piece) ?? brokenReference(piece);
  if (broken) return invalid(broken);
  for (const layer of piece.layers) {
    clampTracks(layer);
    dropStandingTracks(layer);
  }
  return { ok: true, piece };
}

/**
 * A document as this program or an earlier one stored it, brought up to this version; one that cannot be read is given
 * back as it is.
 */
export function completePiece(stored: Piece): Piece {
  const parsed = parsePiece(stored);
  return parsed.ok ? parsed.piece : stored;
}
