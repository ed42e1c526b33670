import * as z from 'zod';
import type { TrackValue } from '../../motion';
import { idSchema } from '../../time';
import { constantTrack } from '../document/create';
import { constraintsSchema } from '../document/composition-schema';
import { overrideSchema } from '../document/layer-schema';
import type { Layer } from '../document/layer-schema';
import { NO_DIFFERENCE, isNoDifference } from '../document/overrides';
import { clampValue, isValueOf } from '../document/properties';
import { isPropertyId, partValue, trackIdSchema } from '../document/track-ids';
import type { TrackId } from '../document/track-ids';
import { hasProperty } from '../document/tracks';
import { defineEdit, findLayer } from './define';
import { valueSchema } from './value-schemas';

const isEmpty = (tracks: object | undefined): boolean => Object.keys(tracks ?? {}).length === 0;

/** Takes a value away that a layer has in one format alone, and the override with its last difference. */
function leaveFormat(layer: Layer, formatId: string, id: TrackId): void {
  const own = layer.overrides[formatId];
  if (!own) return;
  if (isPropertyId(id)) delete own.tracks?.[id];
  else delete own.parts?.[id];
  if (isEmpty(own.tracks)) delete own.tracks;
  if (isEmpty(own.parts)) delete own.parts;
  if (isNoDifference(own)) delete layer.overrides[formatId];
}

/** A value as the layer can hold it under an id; null if it cannot. */
function fitting(layer: Layer, id: TrackId, value: TrackValue): TrackValue | null {
  if (!isPropertyId(id)) return partValue(layer, id, value);
  return hasProperty(layer.kind, id) && isValueOf(id, value) ? clampValue(id, value) : null;
}

/** Edits of what layers are in other frame sizes. */
export const FORMAT_EDITS = {
  'layer.setOverride': defineEdit(
    'Change layer in one format',
    z.object({ id: z.string(), formatId: idSchema, override: overrideSchema.nullable() }),
    (draft, { id, formatId, override }) => {
      const layer = findLayer(draft, id);
      if (!layer || layer.locked) return;
      if (override) layer.overrides[formatId] = override;
      else delete layer.overrides[formatId];
    },
  ),
  /** A value that a layer has in one format alone; null lets it be what it is in the others. */
  'layer.setInFormat': defineEdit(
    'Change value in one format',
    z.object({ id: z.string(), formatId: idSchema, property: trackIdSchema, value: valueSchema.nullable() }),
    (draft, { id, formatId, property, value }) => {
      const layer = findLayer(draft, id);
      if (!layer || layer.locked || !draft.formats.some((format) => format.id === formatId)) return;
      if (value === null) return leaveFormat(layer, formatId, property);
      const held = fitting(layer, property, value);
      if (held === null) return;
      const own = (layer.overrides[formatId] ??= { ...NO_DIFFERENCE, move: [0, 0] });
      if (isPropertyId(property)) own.tracks = { ...own.tracks, [property]: constantTrack(held) };
      else own.parts = { ...own.parts, [property]: constantTrack(held) };
    },
  ),
  /** What holds layers in other frame sizes; null lets them be scaled about the centre. */
  'layer.setConstraints': defineEdit(
    'Change frame anchors',
    z.object({ ids: z.array(z.string()), constraints: constraintsSchema.nullable() }),
    (draft, { ids, constraints }) => {
      for (const layer of draft.layers)
        if (ids.includes(layer.id) && !layer.locked) layer.constraints = constraints && { ...constraints };
    },
  ),
} as const;
