import * as z from 'zod';
import { colourSchema } from '../../colour';
import { ownGestureSchema, trackSchema } from '../../motion';
import { frameRateSchema, idSchema, momentSchema, textSchema } from '../../time';
import { guideLineSchema, transitionSchema } from './composition-schema';
import { layerSchema } from './layer-schema';
import { mediaRefSchema } from './media-schema';
import { DEFAULT_SHEET, sheetSchema } from './sheet';
import { musicSchema, soundSchema, typedTempoSchema } from './song-schema';
import { madeFromSchema, templateSchema } from './template-schema';
import { MAX_STYLES, savedStyleSchema } from './text-styles';
import { EMPTY_WARDROBE, wardrobeSchema } from './wardrobe-schema';

/**
 * The piece: plain JSON, immutable, versioned. docs/FORMATS.md describes the same for readers outside. Positions are
 * pixels of the lead format measured from the frame's centre, so that other formats can place them.
 *
 * Objects are strict: a field that this program does not know is refused by name, never dropped. A change of the shape
 * is a new version with a migration and a fixture (schema-shape.test.ts); a new row in the table of kinds is not.
 */
export const PIECE_VERSION = 8;
export const MIN_FRAME_SIDE = 16;
export const MAX_FRAME_SIDE = 4096;
/** Most layers of a piece, and most markers. */
export const MAX_LAYERS = 2000;
/** Most gestures of one's own in a piece. */
export const MAX_OWN_GESTURES = 200;
/** Most files of a piece. */
export const MAX_MEDIA = 500;
/** Most sounds beside the music. */
const MAX_SOUNDS = 200;
const MAX_TRANSITIONS = 500;
const MAX_GUIDES = 100;
/** Longest piece in seconds: what its end lies behind is not shown and not rendered. */
export const MAX_PIECE_SECONDS = 600;

const side = z.number().int().min(MIN_FRAME_SIDE).max(MAX_FRAME_SIDE);

export const formatSchema = z.strictObject({ id: idSchema, name: textSchema(60), width: side, height: side });
export type Format = z.infer<typeof formatSchema>;

export const markerSchema = z.strictObject({
  id: idSchema,
  name: textSchema(120),
  colour: colourSchema,
  at: momentSchema,
});
export type Marker = z.infer<typeof markerSchema>;

/** Colours only: video has no alpha, so the ground is opaque. */
export const backgroundSchema = trackSchema.refine(
  (t) => [t.value, ...t.keyframes.map((k) => k.value)].every((v) => typeof v === 'string'),
  { message: 'the background takes colours' },
);

/** The lists of a piece: what stands in them, how many may, and what people call them. */
export const LISTS = {
  formats: { entry: formatSchema, most: 12, label: 'formats' },
  markers: { entry: markerSchema, most: MAX_LAYERS, label: 'markers' },
  layers: { entry: layerSchema, most: MAX_LAYERS, label: 'layers' },
  media: { entry: mediaRefSchema, most: MAX_MEDIA, label: 'files' },
  sounds: { entry: soundSchema, most: MAX_SOUNDS, label: 'sounds' },
  transitions: { entry: transitionSchema, most: MAX_TRANSITIONS, label: 'transitions' },
  guides: { entry: guideLineSchema, most: MAX_GUIDES, label: 'guides' },
  gestures: { entry: ownGestureSchema, most: MAX_OWN_GESTURES, label: 'gestures of your own' },
  styles: { entry: savedStyleSchema, most: MAX_STYLES, label: 'styles' },
} as const;
export type ListId = keyof typeof LISTS;
export const LIST_IDS = Object.keys(LISTS) as ListId[]; // keys of a literal object

/** Words of one's own that a piece may have. */
export const MAX_OWN_WORDS = 2000;
export const ownWordSchema = textSchema(60).min(1);

export const pieceSchema = z.strictObject({
  version: z.literal(PIECE_VERSION),
  id: idSchema,
  name: textSchema(200).min(1),
  frameRate: frameRateSchema,
  formats: z.array(formatSchema).min(1).max(LISTS.formats.most),
  leadFormatId: idSchema,
  /** Where the piece ends (exclusive). */
  end: momentSchema,
  background: backgroundSchema,
  music: musicSchema.nullable(),
  tempo: typedTempoSchema,
  markers: z.array(markerSchema).max(LISTS.markers.most),
  /** Painted first to last: the last layer is on top. */
  layers: z.array(layerSchema).max(LISTS.layers.most),
  media: z.array(mediaRefSchema).max(LISTS.media.most),
  /** One's own gestures. */
  gestures: z.array(ownGestureSchema).max(LISTS.gestures.most).default([]),
  /** Angle of the shutter in degrees: the share of a frame's time it is open, of 360. 0 draws moments. */
  shutter: z.number().min(0).max(720).default(0),
  /** Saved looks of text. */
  styles: z.array(savedStyleSchema).max(LISTS.styles.most).default([]),
  /** How the phrases of the piece are staged; the phrases themselves are text layers. */
  sheet: sheetSchema.default(DEFAULT_SHEET),
  /** The moment that stands for the piece where it does not move; null leaves it to the program. */
  poster: momentSchema.nullable().default(null),
  /** Sounds beside the music. */
  sounds: z.array(soundSchema).max(LISTS.sounds.most).default([]),
  transitions: z.array(transitionSchema).max(LISTS.transitions.most).default([]),
  guides: z.array(guideLineSchema).max(LISTS.guides.most).default([]),
  wardrobe: wardrobeSchema.default(EMPTY_WARDROBE),
  /** What makes it a template, if it is one. */
  template: templateSchema.nullable().default(null),
  madeFrom: madeFromSchema.nullable().default(null),
  /** Words that are spelled right though no dictionary has them. */
  ownWords: z.array(ownWordSchema).max(MAX_OWN_WORDS).default([]),
});
export type Piece = z.infer<typeof pieceSchema>;

/** The first id that stands twice in one list, in words; null if all are different. */
export function repeatedId(piece: Pick<Piece, ListId>): string | null {
  for (const list of LIST_IDS) {
    const seen = new Set<string>();
    for (const { id } of piece[list] as readonly { id: string }[]) {
      if (seen.has(id)) return `${list}: two have the id ${id}`;
      seen.add(id);
    }
  }
  return null;
}
