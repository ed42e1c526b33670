import { ownTrack, dropStandingTracks, trackOf } from './tracks';
import * as z from 'zod';
import { DEFAULT_FAMILY } from '../../text';
import { idSchema, textSchema } from '../../time';
import { LAYER_KINDS, kindProperties } from './layer-kinds';
import { PROPERTIES, VALUE_KINDS } from './properties';
import type { PropertyId } from './properties';
import type { TextLayer } from './layer-schema';

/**
 * How words look, apart from what they say, how large they are, where they stand and how they move. Saved with the
 * piece; layers that wear a style follow it when it is saved anew.
 */
const CONTENT = ['family', 'italic', 'gradient', 'letterCase', 'features', 'dress'] as const;
const VALUES = [
  'weight',
  'letterWidth',
  'lean',
  'opticalSize',
  'axisA',
  'axisB',
  'axisC',
  'tracking',
  'leading',
  'fill',
  'fillEnd',
  'gradientAngle',
  'stroke',
  'strokeWidth',
] as const satisfies readonly PropertyId[];

const contentShape = LAYER_KINDS.text.content.pick(
  Object.fromEntries(CONTENT.map((key) => [key, true])) as Record<(typeof CONTENT)[number], true>,
); // fromEntries loses the keys
const fresh = kindProperties('text');
const valuesShape = z.strictObject(
  Object.fromEntries(
    VALUES.map((id) => [id, (VALUE_KINDS[PROPERTIES[id].kind] as z.ZodType).default(fresh[id])]),
  ) as unknown as {
    [P in (typeof VALUES)[number]]: z.ZodDefault<(typeof VALUE_KINDS)[(typeof PROPERTIES)[P]['kind']]>;
  },
); // as above; each default is of its property's kind

/**
 * A look is whole: what a document leaves out is as a new text has it, so that putting one on leaves nothing of the
 * last.
 */
export const textLookSchema = z.strictObject({ content: contentShape, values: valuesShape });
export type TextLook = z.infer<typeof textLookSchema>;
export const savedStyleSchema = textLookSchema.extend({ id: idSchema, name: textSchema(80).min(1) });
export type SavedStyle = z.infer<typeof savedStyleSchema>;
/** Most styles of a piece. */
export const MAX_STYLES = 200;

/** A look that differs from a new text's in what is given. */
export const newLook = (content: Partial<TextLook['content']>, values: Partial<TextLook['values']>): TextLook =>
  textLookSchema.parse({ content: { family: DEFAULT_FAMILY, ...content }, values });

/** The look of a text as it stands; of what is keyframed, the standing value. */
export function lookOf(layer: TextLayer): TextLook {
  return textLookSchema.parse({
    content: Object.fromEntries(CONTENT.map((key) => [key, layer.content[key]])),
    values: Object.fromEntries(VALUES.map((id) => [id, trackOf(layer, id)?.value])),
  });
}

/** A look alone, of what may have a name and an id as well. */
const onlyLook = ({ content, values }: TextLook): TextLook => textLookSchema.parse({ content, values });

/** Whether two looks are the same, in whichever order their fields were stored. */
export const sameLook = (a: TextLook, b: TextLook): boolean =>
  JSON.stringify(onlyLook(a)) === JSON.stringify(onlyLook(b));

/** Dresses a text (a draft, or one of one's own making) in a look. Values that are keyframed keep their keyframes. */
export function dressIn(layer: TextLayer, look: TextLook): void {
  Object.assign(layer.content, look.content);
  for (const id of VALUES) {
    if ((layer.tracks[id]?.keyframes.length ?? 0) === 0) ownTrack(layer, id).value = look.values[id];
  }
  dropStandingTracks(layer);
}
