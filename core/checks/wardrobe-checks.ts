import { literalColours, mediaIdOf, nearestRoles, shownLayers, worn } from '../piece';
import { finding } from './finding';
import type { CheckContext, Finding } from './finding';

/** What a piece wears and shows: files that are there, colours that are its own. */

/** Layers whose file the piece does not have, or does not have any more. */
export function missingMedia({ piece }: CheckContext): Finding[] {
  const known = new Set(piece.media.map(({ id }) => id));
  return shownLayers(piece.layers).flatMap((layer) => {
    const mediaId = mediaIdOf(worn(layer, piece.wardrobe));
    if (mediaId === null || known.has(mediaId)) return [];
    const text = mediaId.startsWith('@')
      ? `${layer.name} uses the logo “${mediaId.slice(1)}”, which isn’t in the wardrobe.`
      : `The file of ${layer.name} is missing.`;
    return [finding('error', text, { layerId: layer.id })];
  });
}

/** Colours that are named; a list of all would be read by nobody. */
const NAMED = 4;
/** A logo and a picture's frame bring colours of their own; more than this is no wardrobe any more. */
const MOST_OUTSIDE = 8;

/** In a piece with roles, many colours that none of them has: what a change of the wardrobe would leave behind. */
export function coloursOutside({ piece }: CheckContext): Finding[] {
  const own = new Set(Object.values(piece.wardrobe.colours).map((colour) => colour.slice(0, 7).toLowerCase()));
  if (own.size === 0) return [];
  const outside = literalColours(piece).filter((colour) => colour.length === 7 && !own.has(colour.toLowerCase()));
  if (outside.length <= MOST_OUTSIDE) return [];
  const roles = nearestRoles(piece);
  const changes = outside.flatMap((from) => {
    const to = roles.get(from);
    return to === undefined ? [] : [{ from, to }];
  });
  const text = `${outside.length} colours aren’t in the wardrobe: ${outside.slice(0, NAMED).join(', ')} …`;
  return [finding('warning', text, { fixes: [{ label: 'Recolour', edits: [{ type: 'piece.recolour', changes }] }] })];
}
