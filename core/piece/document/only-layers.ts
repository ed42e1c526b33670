import { ancestorsOf, byId, withDescendants } from './tree';
import type { Piece } from './schema';

/**
 * The piece with only some of its layers to be seen, in their places and at their times: what they hang on, are cut by
 * or follow stays there unseen. @param ids - layers or groups; those that are not there are passed over.
 */
export function onlyLayers<T extends Pick<Piece, 'layers'>>(piece: T, ids: readonly string[]): T {
  const known = byId(piece.layers);
  const kept = new Set(withDescendants(piece.layers, ids).map((layer) => layer.id));
  for (const id of ids) for (const group of ancestorsOf(known, id)) kept.add(group.id);
  return { ...piece, layers: piece.layers.map((layer) => (kept.has(layer.id) ? layer : { ...layer, hidden: true })) };
}
