import * as z from 'zod';
import {
  beatsSchema,
  frameRateSchema,
  idSchema,
  lengthSchema,
  momentSchema,
  secondsSchema,
  textSchema,
} from '../../time';
import { musicSpan, rearranged, rearrangedBeat } from '../song/arrange';
import { scaleBeatLengths } from '../song/beat-lengths';
import { momentReheard } from '../song/rehear';
import { rememberTimes, visitMoments } from '../times/resolve-times';
import { backgroundSchema, formatSchema, markerSchema } from '../document/schema';
import {
  analysisVersionSchema,
  correctionChangeSchema,
  gridCorrectionSchema,
  musicSchema,
  typedTempoSchema,
} from '../document/song-schema';
import { mediaRefSchema } from '../document/media-schema';
import { defineEdit } from './define';
import { moveItem, putItem } from './list-items';

/** Different beats and hits that moments of a piece are pinned to. */
const MOST_PINS = 100_000;

/**
 * Edits of the piece as a whole: name, frame, music and markers. Those that move the grid first note where every pin
 * was.
 */
export const PIECE_EDITS = {
  'piece.rename': defineEdit('Rename piece', z.object({ name: textSchema(200).min(1) }), (draft, { name }) => {
    draft.name = name;
  }),
  'piece.setEnd': defineEdit('Change duration', z.object({ end: momentSchema }), (draft, { end }) => {
    draft.end = end;
  }),
  'piece.setFrameRate': defineEdit(
    'Change frame rate',
    z.object({ frameRate: frameRateSchema }),
    (draft, { frameRate }) => {
      draft.frameRate = frameRate;
    },
  ),
  'piece.setBackground': defineEdit(
    'Change background',
    z.object({ background: backgroundSchema }),
    (draft, { background }) => {
      draft.background = background;
    },
  ),
  'piece.setPoster': defineEdit(
    'Set poster frame',
    z.object({ poster: momentSchema.nullable() }),
    (draft, { poster }) => {
      draft.poster = poster;
    },
  ),
  'format.add': defineEdit('Add format', z.object({ format: formatSchema }), (draft, { format }) => {
    if (!draft.formats.some((f) => f.id === format.id)) draft.formats.push(format);
  }),
  'format.change': defineEdit('Change format', z.object({ format: formatSchema }), (draft, { format }) => {
    const i = draft.formats.findIndex((f) => f.id === format.id);
    if (i >= 0) draft.formats[i] = format;
  }),
  'format.remove': defineEdit('Remove format', z.object({ id: z.string() }), (draft, { id }) => {
    if (id === draft.leadFormatId) return;
    draft.formats = draft.formats.filter((f) => f.id !== id);
    for (const layer of draft.layers) delete layer.overrides[id];
  }),
  /** Puts a format before or behind others; which of them leads stays as it is. */
  'format.order': defineEdit(
    'Reorder formats',
    z.object({ id: z.string(), to: z.number().int().min(0) }),
    (draft, { id, to }) => {
      moveItem(draft.formats, id, to);
    },
  ),
  'media.add': defineEdit('Import file', z.object({ media: mediaRefSchema }), (draft, { media }) => {
    if (!draft.media.some((m) => m.id === media.id)) draft.media.push(media);
  }),
  'music.set': defineEdit(
    'Change music',
    z.object({ music: musicSchema.nullable() }),
    (draft, { music }, { times }) => {
      rememberTimes(draft, times.targets);
      draft.music = music;
    },
  ),
  'music.correct': defineEdit(
    'Edit beats',
    z.object({ correction: correctionChangeSchema }),
    (draft, { correction }, { times }) => {
      if (!draft.music) return;
      rememberTimes(draft, times.targets);
      Object.assign(draft.music.correction, correction);
    },
  ),
  'music.rehear': defineEdit(
    'Use new beats',
    z.object({
      analysisVersion: analysisVersionSchema,
      correction: gridCorrectionSchema,
      beats: z.array(z.tuple([beatsSchema, beatsSchema])).max(MOST_PINS),
      hits: z.array(z.tuple([idSchema, idSchema])).max(MOST_PINS),
      ratio: z.number().min(0.1).max(10),
    }),
    (draft, { analysisVersion, correction, ratio, ...pinned }, { times }) => {
      if (!draft.music) return;
      const pins = { beats: new Map(pinned.beats), hits: new Map(pinned.hits), ratio };
      rememberTimes(draft, times.targets);
      visitMoments(draft, (moment) => momentReheard(moment, pins, times.targets));
      if (ratio !== 1) scaleBeatLengths(draft, ratio);
      Object.assign(draft.music, { analysisVersion, correction });
    },
  ),
  'music.arrange': defineEdit(
    'Cut song',
    z.object({
      duration: lengthSchema.positive(),
      stretches: z
        .array(z.object({ from: secondsSchema, to: secondsSchema }))
        .min(1)
        .max(400),
    }),
    (draft, { duration, stretches }, { times }) => {
      const { music } = draft;
      if (!music) return;
      const whole = musicSpan(music, duration);
      const next = rearranged(music, duration, stretches);
      if (!next) return;
      const after = times.regrid({ music: next, tempo: draft.tempo });
      visitMoments(draft, (moment) =>
        moment.kind === 'pinned' && moment.to.type === 'beat'
          ? {
              ...moment,
              to: { type: 'beat', beat: rearrangedBeat(times.grid, after, moment.to.beat, stretches, whole) },
            }
          : undefined,
      );
      Object.assign(music, next);
    },
  ),
  'music.place': defineEdit(
    'Move song',
    z.object({ start: secondsSchema, beatShift: beatsSchema }),
    (draft, { start, beatShift }, { times }) => {
      if (!draft.music) return;
      rememberTimes(draft, times.targets);
      draft.music.start = start;
      // What was set stays where it is, on the beat that is there now.
      visitMoments(draft, (moment) =>
        moment.kind === 'pinned' && moment.to.type === 'beat'
          ? { ...moment, to: { type: 'beat', beat: moment.to.beat + beatShift } }
          : undefined,
      );
    },
  ),
  'markers.add': defineEdit(
    'Add markers',
    z.object({ markers: z.array(markerSchema).max(2000) }),
    (draft, { markers }) => {
      for (const marker of markers)
        if (!draft.markers.some((m) => m.id === marker.id) && draft.markers.length < 2000) draft.markers.push(marker);
    },
  ),
  'tempo.set': defineEdit('Change tempo', z.object({ tempo: typedTempoSchema }), (draft, { tempo }, { times }) => {
    rememberTimes(draft, times.targets);
    draft.tempo = tempo;
  }),
  'marker.put': defineEdit('Edit marker', z.object({ marker: markerSchema }), (draft, { marker }) => {
    putItem(draft.markers, marker);
  }),
  'marker.remove': defineEdit('Remove markers', z.object({ ids: z.array(z.string()) }), (draft, { ids }, { times }) => {
    rememberTimes(draft, times.targets);
    draft.markers = draft.markers.filter((m) => !ids.includes(m.id));
  }),
} as const;
