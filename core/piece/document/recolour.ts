import { colourDistance } from '../../colour';
import type { Colour } from '../../colour';
import { isOwnWords, isRole } from './worn';
import type { Piece } from './schema';

/** Colours of a piece, wherever they stand. */

const LITERAL = /^#([0-9a-fA-F]{6}|[0-9a-fA-F]{8})$/;

/** What is looked through for colours. */
const PLACES = ['layers', 'background', 'sheet'] as const;

/** Changes every text that stands for a colour, in place; what people wrote themselves stays. */
function visit(value: unknown, change: (colour: Colour) => Colour): void {
  if (typeof value !== 'object' || value === null) return;
  const record = value as Record<string, unknown>; // lists have numbers for names
  for (const key of Object.keys(record)) {
    const entry = record[key];
    if (typeof entry === 'string') {
      if (isOwnWords(key) || !(LITERAL.test(entry) || isRole(entry))) continue;
      const next = change(entry);
      if (next !== entry) record[key] = next;
    } else visit(entry, change);
  }
}

/** Changes the colours of a draft. */
export function changeColours(draft: Piece, change: (colour: Colour) => Colour): void {
  for (const place of PLACES) visit(draft[place], change);
}

/** The colours that are written out in a piece, the most frequent first. */
export function literalColours(piece: Piece): Colour[] {
  const counts = new Map<Colour, number>();
  const count = (colour: Colour): Colour => {
    if (!isRole(colour)) counts.set(colour, (counts.get(colour) ?? 0) + 1);
    return colour;
  };
  for (const place of PLACES) visit(piece[place], count);
  return [...counts].sort((a, b) => b[1] - a[1]).map(([colour]) => colour);
}

/** What can hardly be seen has no colour worth a role. */
const isSeen = (colour: Colour): boolean => colour.length === 7 || parseInt(colour.slice(7), 16) > 8;

/**
 * For each colour that is written out the role whose colour looks most like it. What is partly see-through stays as it is:
 * a role covers.
 */
export function nearestRoles(piece: Piece): Map<Colour, string> {
  const roles = Object.entries(piece.wardrobe.colours);
  const out = new Map<Colour, string>();
  for (const colour of literalColours(piece)) {
    if (colour.length > 7 || !isSeen(colour)) continue;
    const [best] = roles
      .map(([role, own]) => [role, colourDistance(own.slice(0, 7), colour)] as const)
      .sort((a, b) => a[1] - b[1]);
    if (best) out.set(colour, `@${best[0]}`);
  }
  return out;
}
