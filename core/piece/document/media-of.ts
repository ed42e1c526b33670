import { LAYER_KINDS } from './layer-kinds';
import type { Layer } from './layer-schema';
import type { MediaRef } from './media-schema';
import type { Piece } from './schema';

/** The file that a layer shows: its id in the piece; null for none. */
export function mediaIdOf(layer: Pick<Layer, 'kind' | 'content'>): string | null {
  // The row of the layer's own kind, so its content fits.
  const { mediaOf } = LAYER_KINDS[layer.kind] as { mediaOf: (content: Layer['content']) => string | null };
  return mediaOf(layer.content);
}

/** The song that a piece is cut to; null without music. */
export const songOf = ({ media, music }: Pick<Piece, 'media' | 'music'>): MediaRef | null =>
  media.find((ref) => ref.id === music?.mediaId) ?? null;

/** What a piece is timed by: its song, and the method of analysis, null for the song's first. Null without music. */
export interface Timing {
  readonly hash: string;
  readonly version: number | null;
}
export function timedBy(piece: Pick<Piece, 'media' | 'music'>): Timing | null {
  const song = songOf(piece);
  return song && piece.music ? { hash: song.hash, version: piece.music.analysisVersion } : null;
}

/** The files that layers of a piece may need elsewhere: those they show, by role or by name, and all fonts. */
export function mediaFor(
  { media, wardrobe }: Pick<Piece, 'media' | 'wardrobe'>,
  layers: readonly Layer[],
): Piece['media'] {
  const shown = new Set(layers.map(mediaIdOf));
  for (const [role, id] of Object.entries(wardrobe.logos)) if (shown.has(`@${role}`)) shown.add(id);
  return media.filter((ref) => shown.has(ref.id) || ref.kind === 'font');
}
