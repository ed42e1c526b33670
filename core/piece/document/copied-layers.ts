import * as z from 'zod';
import { colourSchema } from '../../colour';
import { ownGestureSchema } from '../../motion';
import { idSchema, textSchema } from '../../time';
import { copyLayers } from './copy-layers';
import type { IdSource } from './create';
import { layerSchema } from './layer-schema';
import type { Layer } from './layer-schema';
import { mediaFor, mediaIdOf } from './media-of';
import { mediaRefSchema } from './media-schema';
import { plainCopy } from './plain-copy';
import { LISTS, PIECE_VERSION } from './schema';
import type { Piece } from './schema';
import { withDescendants } from './tree';
import type { Wardrobe } from './wardrobe-schema';
import { worn } from './worn';

const MOST_ROLES = 200;
const roles = <T extends z.ZodType>(value: T) =>
  z.record(textSchema(40), value).refine((all) => Object.keys(all).length <= MOST_ROLES, `at most ${MOST_ROLES} roles`);

/**
 * Layers on their way from one piece to another, with what they name of the piece they come from: files, gestures of
 * one's own, and what roles of the wardrobe stand for there.
 */
export const copiedSchema = z.strictObject({
  estrella: z.literal('layers'),
  version: z.literal(PIECE_VERSION),
  layers: z.array(layerSchema).min(1).max(LISTS.layers.most),
  media: z.array(mediaRefSchema).max(LISTS.media.most),
  gestures: z.array(ownGestureSchema).max(LISTS.gestures.most),
  colours: roles(colourSchema),
  fonts: roles(textSchema(120)),
  logos: roles(idSchema),
});
export type Copied = z.infer<typeof copiedSchema>;

/** Layers with all that is in them, as they are copied; null for none. */
export function copiedFrom(piece: Piece, ids: readonly string[]): Copied | null {
  const layers = withDescendants(piece.layers, ids);
  if (layers.length === 0) return null;
  const gestures = new Set(layers.flatMap((layer) => layer.gestures.map((use) => use.gesture)));
  return {
    estrella: 'layers',
    version: PIECE_VERSION,
    layers,
    media: mediaFor(piece, layers),
    gestures: piece.gestures.filter((gesture) => gestures.has(gesture.id)),
    colours: piece.wardrobe.colours,
    fonts: piece.wardrobe.fonts,
    logos: piece.wardrobe.logos,
  };
}

export interface Pasted {
  readonly layers: Layer[];
  /** Files and gestures that the piece does not have yet. */
  readonly media: Copied['media'];
  readonly gestures: Copied['gestures'];
}

/**
 * Copied layers as they join a piece: under new ids, their files found again by their contents, roles that the piece
 * does not have written out, and without ties to what has stayed behind.
 */
export function pastedInto(copied: Copied, piece: Piece, newId: IdSource): Pasted {
  const copies = copyLayers(copied.layers, newId);
  const isThere = new Set([...copies, ...piece.layers].map((layer) => layer.id));
  const formats = new Set(piece.formats.map((format) => format.id));
  const mediaIds = new Map<string, string>();
  const media: Copied['media'] = [];
  for (const ref of copied.media) {
    const known = piece.media.find((other) => other.hash === ref.hash);
    if (known) mediaIds.set(ref.id, known.id);
    else {
      const id = piece.media.some((other) => other.id === ref.id) ? newId() : ref.id;
      mediaIds.set(ref.id, id);
      media.push({ ...ref, id });
    }
  }
  // Roles that the piece has too are kept, and stand for what they do there.
  const kept = (all: Readonly<Record<string, string>>): Record<string, string> =>
    Object.fromEntries(Object.keys(all).map((role) => [role, `@${role}`]));
  const { wardrobe } = piece;
  const written: Wardrobe = {
    colours: { ...copied.colours, ...kept(wardrobe.colours) },
    fonts: { ...copied.fonts, ...kept(wardrobe.fonts) },
    logos: { ...copied.logos, ...kept(wardrobe.logos) },
    from: null,
  };
  const layers = copies.map((found) => {
    const copy = plainCopy(worn(found, written));
    forgetOthers(copy, isThere);
    for (const id of Object.keys(copy.overrides)) if (!formats.has(id)) delete copy.overrides[id];
    nameMedia(copy, mediaIds);
    forgetStyle(copy, piece);
    return copy;
  });
  const gestures = copied.gestures.filter((gesture) => !piece.gestures.some((own) => own.id === gesture.id));
  return { layers, media, gestures };
}

/** Takes away what a layer says of layers that are not there: its group, its matte, whom it follows or hugs. */
export function forgetOthers(layer: Layer, isThere: ReadonlySet<string>): void {
  if (layer.parentId !== null && !isThere.has(layer.parentId)) layer.parentId = null;
  for (const tie of ['matte', 'follow', 'hug'] as const) {
    const to = layer[tie];
    if (to && !isThere.has(to.layerId)) layer[tie] = null;
  }
}

function nameMedia(layer: Layer, names: ReadonlyMap<string, string>): void {
  const old = mediaIdOf(layer);
  const id = old === null ? undefined : names.get(old);
  if (id === undefined) return;
  if (layer.kind === 'picture' || layer.kind === 'piece') layer.content.mediaId = id;
  else if (layer.kind === 'text') layer.content.picture = id;
}

function forgetStyle(layer: Layer, piece: Piece): void {
  if (layer.kind !== 'text') return;
  const { content } = layer;
  if (!piece.styles.some((style) => style.id === content.style)) content.style = null;
}
