import { freeMoment } from '../../time';
import type { FrameRate, Moment } from '../../time';
import type { Track, TrackValue } from '../../motion';
import { LAYER_KINDS } from './layer-kinds';
import type { LayerKind } from './layer-kinds';
import type { PropertyId } from './properties';
import { DEFAULT_SHEET } from './sheet';
import { PIECE_VERSION } from './schema';
import { dropStandingTracks } from './tracks';
import { EMPTY_WARDROBE } from './wardrobe-schema';
import type { Format, Piece } from './schema';
import type { GridCorrection, Music } from './song-schema';
import type { Layer, LayerFor } from './layer-schema';
import type { MediaRef } from './media-schema';

/** Makes names for new things; injected, because core has no randomness of its own. */
export type IdSource = () => string;

export const NO_CORRECTION: GridCorrection = {
  bpm: null,
  factor: 1,
  shift: 0,
  firstDownbeat: null,
  beatsPerBar: null,
  groups: null,
  tapped: null,
  moves: [],
  bars: [],
  spans: [],
  free: [],
};

/** Sizes by destination. */
export const DESTINATIONS = {
  wide: { label: 'Wide screen', hint: 'channels, events', width: 1920, height: 1080 },
  tall: { label: 'Tall phone', hint: 'stories, shorts', width: 1080, height: 1920 },
  square: { label: 'Square', hint: 'feeds', width: 1080, height: 1080 },
  portrait: { label: 'Portrait feed', hint: '4:5 posts', width: 1080, height: 1350 },
} as const;
export type DestinationId = keyof typeof DESTINATIONS;

export const constantTrack = (value: TrackValue): Track => ({ value, keyframes: [] });

export interface NewPiece {
  readonly name: string;
  readonly formats: readonly Format[];
  readonly frameRate: FrameRate;
}

/** What a new piece has behind everything. */
export const NEW_BACKGROUND = '#11151b';

/** How long a piece is while nobody has said how long. */
export const NEW_PIECE_SECONDS = 10;

/** An empty ten-second piece at 120 beats a minute. */
export function createPiece(options: NewPiece, newId: IdSource): Piece {
  const lead = options.formats[0];
  if (!lead) throw new RangeError('a piece needs at least one format');
  return {
    version: PIECE_VERSION,
    id: newId(),
    name: options.name,
    frameRate: { ...options.frameRate },
    formats: options.formats.map((f) => ({ ...f })),
    leadFormatId: lead.id,
    end: freeMoment(NEW_PIECE_SECONDS),
    background: constantTrack(NEW_BACKGROUND),
    music: null,
    tempo: { bpm: 120, beatsPerBar: 4, groups: [], firstDownbeat: 0 },
    markers: [],
    layers: [],
    media: [],
    gestures: [],
    styles: [],
    shutter: 0,
    sheet: { ...DEFAULT_SHEET },
    poster: null,
    sounds: [],
    transitions: [],
    guides: [],
    wardrobe: { ...EMPTY_WARDROBE },
    template: null,
    madeFrom: null,
    ownWords: [],
  };
}

export interface NewLayer {
  readonly name: string;
  readonly start: Moment;
  readonly end: Moment;
  readonly parentId?: string | null;
  readonly content?: Record<string, unknown>;
  readonly values?: Partial<Record<PropertyId, TrackValue>>;
}

/** A layer of a kind as it begins, with what is given. @throws ZodError if `content` does not fit the kind. */
export function createLayer<K extends LayerKind>(kind: K, options: NewLayer, newId: IdSource): LayerFor<K> {
  const tracks: Layer['tracks'] = {};
  for (const [property, value] of Object.entries(options.values ?? {}) as [PropertyId, TrackValue][])
    tracks[property] = constantTrack(value);
  const layer = {
    id: newId(),
    parentId: options.parentId ?? null,
    name: options.name,
    kind,
    hidden: false,
    locked: false,
    isGuide: false,
    blend: 'normal',
    start: options.start,
    end: options.end,
    tracks,
    overrides: {},
    constraints: null,
    gestures: [],
    effects: [],
    masks: [],
    matte: null,
    follow: null,
    travel: null,
    hug: null,
    repeat: null,
    listens: [],
    slot: null,
    madeFrom: null,
    motionBlur: 'piece',
    trail: null,
    content: LAYER_KINDS[kind].content.parse(options.content ?? {}),
  } as unknown as LayerFor<K>; // kind and content come from the same table row
  dropStandingTracks(layer as Layer);
  return layer;
}

/** A song as the music. @param before - what it takes the place of, whose start and volume it keeps; the rest was the old song's. */
export function createMusic(media: MediaRef, before: Music | null = null): Music {
  return {
    mediaId: media.id,
    analysisVersion: null,
    start: before?.start ?? 0,
    trimStart: 0,
    trimEnd: null,
    volume: before?.volume ?? constantTrack(1),
    fadeIn: 0,
    fadeOut: 0,
    fadeInCurve: 'even',
    fadeOutCurve: 'even',
    cuts: [],
    correction: { ...NO_CORRECTION },
  };
}
