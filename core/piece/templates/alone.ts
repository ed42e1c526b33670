import { freeMoment } from '../../time';
import { createPiece } from '../document/create';
import type { Piece } from '../document/schema';
import { applyEdits } from '../edits';
import { resolveTimes } from '../times/resolve-times';
import { putIn } from './put-in';

/** What a template is shown in. */
export type Surroundings = Pick<
  Piece,
  'formats' | 'leadFormatId' | 'frameRate' | 'background' | 'wardrobe' | 'tempo' | 'media'
>;

/**
 * Puts a template into a piece in which nothing else stands, from its first moment on: for looking at it with other
 * words, in other frames and other wardrobes.
 * @returns what fills it; null comes of it if it is no template, or cannot be put in.
 */
export function prepareTemplate(
  template: Piece,
  around: Surroundings,
): (values: Readonly<Record<string, string>>) => Piece | null {
  let ids = 0;
  const newId = (): string => `alone-${++ids}`;
  const { formats, leadFormatId, frameRate, background, wardrobe, tempo, media } = around;
  const empty: Piece = {
    ...createPiece({ name: template.name, formats: [...formats], frameRate }, newId),
    leadFormatId,
    background,
    wardrobe,
    tempo,
    media,
  };
  const made = putIn(template, empty, newId);
  if (!made) return () => null;
  const { piece: put, refused } = applyEdits(
    { ...empty, gestures: made.gestures, media: [...media, ...made.media] },
    [
      { type: 'layer.add', layers: made.layers },
      { type: 'layer.place', places: [{ id: made.group.id, at: freeMoment(0) }] },
    ],
    resolveTimes(empty, null),
  );
  if (refused !== null) return () => null;
  const times = resolveTimes(put, null);
  return (values) => {
    const { piece } = applyEdits(put, [{ type: 'slots.fill', id: made.group.id, values: { ...values } }], times);
    const group = piece.layers.find((layer) => layer.id === made.group.id);
    return group ? { ...piece, end: group.end } : null;
  };
}

/** A template alone in a piece, filled; null if it is none. */
export const templateAlone = (
  template: Piece,
  around: Surroundings,
  values: Readonly<Record<string, string>>,
): Piece | null => prepareTemplate(template, around)(values);
