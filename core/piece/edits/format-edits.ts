import { z } from 'zod';
import { idSchema } from '../../time';
import { constantTrack } from '../document/create';
import { constraintsSchema } from '../document/composition-schema';
import { overrideSchema } from '../document/layer-schema';
import type { Layer } from '../document/layer-schema';
import { clampValue, isValueOf } from '../document/properties';
import type { PropertyId } from '../document/properties';
import { hasProperty } from '../document/tracks';
import { defineEdit, findLayer } from './define';
import { propertyIdSchema, valueSchema } from './value-schemas';

/** Takes a value away that a layer has in one format alone, and the override with its last difference. */
function leaveFormat(layer: Layer, formatId: string, property: PropertyId): void {
  const own = layer.overrides[formatId];
  if (!own?.tracks) return;
  delete own.tracks[property];
  if (Object.keys(own.tracks).length > 0) return;
  delete own.tracks;
  if (own.scale === 1 && !own.hidden && own.move.every((way) => way === 0)) delete layer.overrides[formatId];
}

/** Edits of what layers are in other frame sizes. */
export const FORMAT_EDITS = {
  'layer.setOverride': defineEdit(
    'Change a layer in one format',
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
    'Change a value in one format',
    z.object({ id: z.string(), formatId: idSchema, property: propertyIdSchema, value: valueSchema.nullable() }),
    (draft, { id, formatId, property, value }) => {
      const layer = findLayer(draft, id);
      if (!layer || layer.locked || !draft.formats.some((format) => format.id === formatId)) return;
      if (value === null) return leaveFormat(layer, formatId, property);
      if (!hasProperty(layer.kind, property) || !isValueOf(property, value)) return;
      const own = (layer.overrides[formatId] ??= { move: [0, 0], scale: 1, hidden: false });
      own.tracks = { ...own.tracks, [property]: constantTrack(clampValue(property, value)) };
    },
  ),
  /** What holds layers in other frame sizes; null lets them be scaled about the centre. */
  'layer.setConstraints': defineEdit(
    'Change what holds a layer',
    z.object({ ids: z.array(z.string()), constraints: constraintsSchema.nullable() }),
    (draft, { ids, constraints }) => {
      for (const layer of draft.layers)
        if (ids.includes(layer.id) && !layer.locked) layer.constraints = constraints && { ...constraints };
    },
  ),
} as const;
