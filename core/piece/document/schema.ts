import { z } from 'zod';
import { colourSchema } from '../../colour';
import { gestureUseSchema, ownGestureSchema, trackSchema, vectorSchema } from '../../motion';
import type { Track } from '../../motion';
import { fontAxisSchema } from '../../text';
import {
  frameRateSchema,
  idSchema,
  lengthSchema,
  momentSchema,
  numberSchema,
  secondsSchema,
  textSchema,
} from '../../time';
import { BLEND_MODE_IDS, LAYER_KINDS, kindProperties } from './layer-kinds';
import type { LayerKind } from './layer-kinds';
import { PROPERTIES, PROPERTY_IDS, VALUE_KINDS, clampValue } from './properties';
import type { PropertyId } from './properties';
import { DEFAULT_SHEET, sheetSchema } from './sheet';
import { MAX_STYLES, savedStyleSchema } from './text-styles';
import { exceededTotal } from './totals';

/**
 * The piece: plain JSON, immutable, versioned. docs/FORMATS.md describes the same for readers outside.
 * Positions are pixels of the lead format measured from the frame's centre, so that other formats can place them.
 */
export const PIECE_VERSION = 1;
export const MIN_FRAME_SIDE = 16;
export const MAX_FRAME_SIDE = 4096;
/** Most layers of a piece, and most markers. */
export const MAX_LAYERS = 2000;
/** Most gestures of a layer, and most of one's own in a piece. */
export const MAX_GESTURES = 24;
export const MAX_OWN_GESTURES = 200;
/** Most files of a piece. */
export const MAX_MEDIA = 500;
const MAX_MEDIA_SIDE = 100_000;
/** Longest piece in seconds: what its end lies behind is not shown and not rendered. */
export const MAX_PIECE_SECONDS = 600;

const side = z.number().int().min(MIN_FRAME_SIDE).max(MAX_FRAME_SIDE);

export const formatSchema = z.object({ id: idSchema, name: textSchema(60), width: side, height: side });
export type Format = z.infer<typeof formatSchema>;

const songStretch = z.object({ start: secondsSchema, end: secondsSchema });

const correctionFields = {
  /** Constant tempo in place of the found beats; null follows the analysis. */
  bpm: z.number().min(20).max(400).nullable(),
  /** 2 doubles the beats found, 0.5 keeps every second one. */
  factor: z.union([z.literal(0.5), z.literal(1), z.literal(2)]),
  /** Moves the whole grid. */
  shift: secondsSchema,
  /** Where "one" is; null follows the analysis. */
  firstDownbeat: secondsSchema.nullable(),
  beatsPerBar: z.number().int().min(1).max(16).nullable(),
};
const laterCorrectionFields = {
  /** Beats tapped along, in place of the found ones. */
  tapped: z.array(secondsSchema).max(20000).nullable(),
  /** Beats dragged from one time to another; their neighbours follow (see grid-corrections.ts). */
  moves: z.array(z.object({ at: secondsSchema, to: secondsSchema })).max(2000),
  /** "This is one": a bar begins here, and bars have this many beats from here on. */
  bars: z.array(z.object({ at: secondsSchema, beatsPerBar: z.number().int().min(1).max(16) })).max(500),
  /** Stretches with a known number of beats between two anchored times; the beats between are looked for. */
  spans: z.array(songStretch.extend({ beats: z.number().int().min(1).max(4000) })).max(200),
  /** Stretches without a pulse: no lattice, no snapping to beats. */
  free: z.array(songStretch).max(200),
};
/** A change of some corrections. */
export const correctionChangeSchema = z.object({ ...correctionFields, ...laterCorrectionFields }).partial();

/**
 * Corrections by hand, kept apart from the analysis so that analysing anew never loses them. Times are seconds of the
 * song.
 */
export const gridCorrectionSchema = z.object({
  ...correctionFields,
  tapped: laterCorrectionFields.tapped.default(null),
  moves: laterCorrectionFields.moves.default([]),
  bars: laterCorrectionFields.bars.default([]),
  spans: laterCorrectionFields.spans.default([]),
  free: laterCorrectionFields.free.default([]),
});
export type GridCorrection = z.infer<typeof gridCorrectionSchema>;

/** How a fade runs: evenly in amplitude, evenly in power, or with soft ends. */
export const FADE_CURVES = ['even', 'power', 'soft'] as const;
export type FadeCurve = (typeof FADE_CURVES)[number];

/**
 * Where the song jumps: having played up to `at`, it goes on from `to`. Later than `at` leaves a stretch out, earlier
 * repeats one. Seconds of the song.
 */
export const songCutSchema = z.object({ at: secondsSchema, to: secondsSchema });
export type SongCut = z.infer<typeof songCutSchema>;

export const musicSchema = z.object({
  mediaId: idSchema,
  /** Seconds of the piece at which the song, cut by `trimStart`, begins. */
  start: secondsSchema,
  trimStart: lengthSchema,
  /** Seconds of the song at which it ends; null plays it to its end. */
  trimEnd: lengthSchema.positive().nullable(),
  /** Linear gain. */
  gain: z.number().min(0).max(4),
  fadeIn: lengthSchema,
  fadeOut: lengthSchema,
  fadeInCurve: z.enum(FADE_CURVES).default('even'),
  fadeOutCurve: z.enum(FADE_CURVES).default('even'),
  /** In the order in which they are played. */
  cuts: z.array(songCutSchema).max(200).default([]),
  correction: gridCorrectionSchema,
});
export type Music = z.infer<typeof musicSchema>;

/** The beat grid of a piece without music. */
export const typedTempoSchema = z.object({
  bpm: z.number().min(20).max(400),
  beatsPerBar: z.number().int().min(1).max(16),
  firstDownbeat: secondsSchema,
});
export type TypedTempo = z.infer<typeof typedTempoSchema>;

export const markerSchema = z.object({ id: idSchema, name: textSchema(120), colour: colourSchema, at: momentSchema });
export type Marker = z.infer<typeof markerSchema>;

/** What a font file brought in says of itself. */
export const fontRefSchema = z.object({
  family: textSchema(80).min(1),
  style: textSchema(80),
  italic: z.boolean(),
  weights: z.tuple([numberSchema, numberSchema]),
  axes: z.array(fontAxisSchema).max(64),
  /** Inclusive code point ranges, flattened. */
  ranges: z.array(z.number().int().min(0).max(0x10ffff)).max(20_000),
});
export type FontRef = z.infer<typeof fontRefSchema>;

/** Facts about an imported file; the bytes live in the media store under the hash. */
export const mediaRefSchema = z.object({
  id: idSchema,
  hash: z.string().regex(/^[0-9a-f]{64}$/),
  kind: z.enum(['audio', 'picture', 'font']),
  name: textSchema(255),
  /** Audio only, seconds. */
  duration: lengthSchema.positive().optional(),
  width: z.number().int().min(1).max(MAX_MEDIA_SIDE).optional(),
  height: z.number().int().min(1).max(MAX_MEDIA_SIDE).optional(),
  /** Fonts only. */
  font: fontRefSchema.optional(),
});
export type MediaRef = z.infer<typeof mediaRefSchema>;

const propertyTrack = Object.fromEntries(
  PROPERTY_IDS.map((property) => [
    property,
    trackSchema
      .refine(
        (t) =>
          [t.value, ...t.keyframes.map((k) => k.value)].every(
            (v) => VALUE_KINDS[PROPERTIES[property].kind].safeParse(v).success,
          ),
        { message: `${property} takes values of kind ${PROPERTIES[property].kind}` },
      )
      .optional(),
  ]),
) as Record<PropertyId, z.ZodOptional<typeof trackSchema>>; // fromEntries loses the key type

/** How a format differs from the lead for one layer: moved by pixels of that format, scaled by a factor, or hidden. */
export const overrideSchema = z.object({
  move: vectorSchema,
  scale: z.number().min(0.001).max(100),
  hidden: z.boolean(),
});
export type FormatOverride = z.infer<typeof overrideSchema>;

const layerBase = z.object({
  id: idSchema,
  name: textSchema(200),
  hidden: z.boolean(),
  locked: z.boolean(),
  blend: z.enum(BLEND_MODE_IDS),
  start: momentSchema,
  end: momentSchema,
  tracks: z.object(propertyTrack),
  overrides: z
    .record(idSchema, overrideSchema)
    .refine((o) => Object.keys(o).length <= 24, 'a layer differs in at most 24 formats'),
  gestures: z.array(gestureUseSchema).max(MAX_GESTURES).default([]),
  /** Whether it is smeared by its movement; `piece` follows the piece's shutter. */
  motionBlur: z.enum(['piece', 'on', 'off']).default('piece'),
  /** Copies that follow it: how many, seconds behind one another, and the share of opacity each keeps. */
  trail: z
    .object({
      copies: z.number().int().min(0).max(24),
      spacing: z.number().min(0.005).max(2),
      fade: z.number().min(0).max(1),
    })
    .nullable()
    .default(null),
});

export const layerSchema = z.discriminatedUnion('kind', [
  layerBase.extend({ kind: z.literal('text'), content: LAYER_KINDS.text.content }),
  layerBase.extend({ kind: z.literal('rectangle'), content: LAYER_KINDS.rectangle.content }),
  layerBase.extend({ kind: z.literal('ellipse'), content: LAYER_KINDS.ellipse.content }),
  layerBase.extend({ kind: z.literal('path'), content: LAYER_KINDS.path.content }),
  layerBase.extend({ kind: z.literal('picture'), content: LAYER_KINDS.picture.content }),
]);
export type Layer = z.infer<typeof layerSchema>;
export type TextLayer = Extract<Layer, { kind: 'text' }>;

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
  gestures: { entry: ownGestureSchema, most: MAX_OWN_GESTURES, label: 'gestures of your own' },
  styles: { entry: savedStyleSchema, most: MAX_STYLES, label: 'styles' },
} as const;
export type ListId = keyof typeof LISTS;
export const LIST_IDS = Object.keys(LISTS) as ListId[]; // keys of a literal object

export const pieceSchema = z.object({
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
});
export type Piece = z.infer<typeof pieceSchema>;

// A kind that is missing from the union above would be a layer that cannot be saved.
const _everyKindIsInTheUnion: LayerKind extends Layer['kind'] ? true : never = true;
void _everyKindIsInTheUnion;

/** What can be wrong with a document that arrives from outside. */
export type PieceProblem = { code: 'NOT_A_PIECE' | 'UNKNOWN_VERSION' | 'INVALID'; detail: string };

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

const invalid = (detail: string): { ok: false; problem: PieceProblem } => ({
  ok: false,
  problem: { code: 'INVALID', detail: detail.slice(0, 300) },
});

/** Values within what their properties allow: a bound that came later must not make an older piece unreadable. */
function clampTracks(layer: Layer): void {
  for (const [property, track] of Object.entries(layer.tracks) as [PropertyId, Track | undefined][]) {
    // keys of the schema
    if (!track) continue;
    track.value = clampValue(property, track.value);
    for (const key of track.keyframes) key.value = clampValue(property, key.value);
  }
}

/**
 * Parses a document of any known version. The one door through which documents come in: from files, from the network,
 * from storage.
 */
export function parsePiece(input: unknown): { ok: true; piece: Piece } | { ok: false; problem: PieceProblem } {
  if (typeof input !== 'object' || input === null || !('version' in input))
    return { ok: false, problem: { code: 'NOT_A_PIECE', detail: 'it has no version' } };
  if (input.version !== PIECE_VERSION)
    return { ok: false, problem: { code: 'UNKNOWN_VERSION', detail: String(input.version).slice(0, 40) } };
  for (const list of LIST_IDS) {
    const entries = (input as Record<string, unknown>)[list];
    if (Array.isArray(entries) && entries.length > LISTS[list].most)
      return invalid(`a piece holds at most ${LISTS[list].most} ${LISTS[list].label}`);
  }
  const exceeded = exceededTotal(input);
  if (exceeded) return invalid(exceeded);
  const parsed = pieceSchema.safeParse(input);
  if (!parsed.success) {
    const issue = parsed.error.issues[0];
    return invalid(issue ? `${issue.path.join('.')}: ${issue.message}` : 'unreadable');
  }
  const piece = parsed.data;
  if (!piece.formats.some((f) => f.id === piece.leadFormatId)) return invalid('leadFormatId: names no format');
  const repeated = repeatedId(piece);
  if (repeated) return invalid(repeated);
  for (const layer of piece.layers) {
    // Properties that have been added since: the track a new layer has.
    for (const [property, value] of Object.entries(kindProperties(layer.kind)))
      layer.tracks[property as PropertyId] ??= { value, keyframes: [] }; // keys of the kind's table
    clampTracks(layer);
  }
  return { ok: true, piece };
}

/**
 * A document as this program or an earlier one stored it, with what has been added since filled in; one that cannot be
 * read is given back as it is.
 */
export function completePiece(stored: Piece): Piece {
  const parsed = parsePiece(stored);
  return parsed.ok ? parsed.piece : stored;
}
