import { z } from 'zod';
import { LAYER_KINDS } from './layer-kinds';
import { PROPERTIES, VALUE_KINDS } from './properties';
import type { PropertyId } from './properties';
import type { TextLayer } from './schema';

/**
 * How words look, apart from what they say, how large they are, where they stand and how they move. Saved with the piece; layers that
 * wear a style follow it when it is saved anew.
 */
const CONTENT = ['family', 'italic', 'gradient', 'letterCase', 'features', 'dress'] as const;
const VALUES = ['weight', 'letterWidth', 'lean', 'opticalSize', 'axisA', 'axisB', 'axisC', 'tracking', 'leading', 'fill', 'fillEnd', 'gradientAngle', 'stroke', 'strokeWidth'] as const satisfies readonly PropertyId[];

const contentShape = LAYER_KINDS.text.content.pick(Object.fromEntries(CONTENT.map((key) => [key, true])) as Record<(typeof CONTENT)[number], true>); // fromEntries loses the keys
const valuesShape = z.object(Object.fromEntries(VALUES.map((id) => [id, VALUE_KINDS[PROPERTIES[id].kind].optional()])) as { [P in (typeof VALUES)[number]]: z.ZodOptional<(typeof VALUE_KINDS)[(typeof PROPERTIES)[P]['kind']]> }); // as above

export const textLookSchema = z.object({ content: contentShape.partial(), values: valuesShape });
export type TextLook = z.infer<typeof textLookSchema>;
export const savedStyleSchema = textLookSchema.extend({ id: z.string().min(1).max(64), name: z.string().min(1).max(80) });
export type SavedStyle = z.infer<typeof savedStyleSchema>;
/** Most styles of a piece. */
export const MAX_STYLES = 200;

/** The look of a text as it stands; of what is keyframed, the standing value. */
export function lookOf(layer: TextLayer): TextLook {
  return textLookSchema.parse({
    content: Object.fromEntries(CONTENT.map((key) => [key, layer.content[key]])),
    values: Object.fromEntries(VALUES.map((id) => [id, layer.tracks[id]?.value])),
  });
}

/** Dresses a text (a draft, or one of one's own making) in a look. Values that are keyframed keep their keyframes. */
export function dressIn(layer: TextLayer, look: TextLook): void {
  Object.assign(layer.content, look.content);
  for (const id of VALUES) {
    const [track, value] = [layer.tracks[id], look.values[id]];
    if (track && value !== undefined && track.keyframes.length === 0) track.value = value;
  }
}
