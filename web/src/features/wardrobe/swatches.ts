import { newGestureUse } from '@core/motion';
import { createLayer, leadFormat } from '@core/piece';
import type { Layer } from '@core/piece';
import { beatMoment, secondsToBeat } from '@core/time';
import { newId } from '../../platform/ids';
import { edit, openDocument, selectLayers } from '../../store/desk-store';
import { newSpan } from '../layers/add-layers';
import { WORDS } from './words';

export const SWATCH_SHAPES = ['chips', 'circles', 'stripes'] as const;
export type SwatchShape = (typeof SWATCH_SHAPES)[number];

/** Share of the frame that a row of chips takes, and of a chip's place that is gap. */
const ROW_SHARE = 0.8;
const GAP_SHARE = 0.18;
/** A chip is no taller than this share of the frame. */
const TALLEST = 0.34;
const CORNER = 0.12;

/**
 * The colours of the wardrobe as ordinary layers in a group: chips, circles or stripes in a row that wear the roles, each
 * coming in on a beat of its own. @returns The group's id; null if the wardrobe has no colours.
 */
export function addSwatches(shape: SwatchShape): string | null {
  const o = openDocument();
  const roles = Object.keys(o?.piece.wardrobe.colours ?? {});
  if (!o || roles.length === 0) return null;
  const { width, height } = leadFormat(o.piece);
  const { start, end } = newSpan();
  const { grid, timeOf } = o.times;
  const first = secondsToBeat(grid, timeOf(start));
  const last = timeOf(end);
  const isStripes = shape === 'stripes';
  const place = ((isStripes ? 1 : ROW_SHARE) * width) / roles.length;
  const side = Math.min(place * (1 - GAP_SHARE), height * TALLEST);
  const dimensions: [number, number] = isStripes ? [Math.ceil(place) + 1, height] : [side, side];
  const group = createLayer('group', { name: WORDS.swatches, start, end }, newId);
  const layers = roles.map((role, i): Layer => {
    // Where beats run out, the rest comes in with the last of them.
    const beat = first + i;
    const own = i === 0 ? start : beatMoment(beat, grid);
    const layer = createLayer(
      shape === 'circles' ? 'ellipse' : 'rectangle',
      {
        name: role,
        start: timeOf(own) < last ? own : start,
        end,
        values: {
          dimensions,
          position: [Math.round((i - (roles.length - 1) / 2) * place), 0],
          fill: `@${role}`,
          ...(shape === 'chips' ? { cornerRadius: Math.round(side * CORNER) } : {}),
        },
      },
      newId,
    );
    const gesture = newGestureUse(isStripes ? 'meteor' : 'nova', 'entrance', newId());
    return { ...layer, parentId: group.id, gestures: [gesture] };
  });
  if (!edit([{ type: 'layer.add', layers: [...layers, group] }])) return null;
  selectLayers([group.id]);
  return group.id;
}
