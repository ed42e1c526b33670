import { freeMoment } from '../../time';
import { createPiece } from '../document/create';
import type { Piece } from '../document/schema';
import { applyEdits } from '../edits';
import { resolveTimes } from '../times/resolve-times';
import { putIn } from './put-in';

/** What a template is shown in. */
export type Surroundings = Pick<Piece, 'formats' | 'leadFormatId' | 'frameRate' | 'background' | 'wardrobe' | 'tempo'>;

/**
 * A piece in which nothing but the template stands, from its first moment on: for looking at it with other words, in
 * other frames and other wardrobes.
 * @returns null if it is no template, or cannot be put in.
 */
export function templateAlone(
  template: Piece,
  around: Surroundings,
  values: Readonly<Record<string, string>>,
): Piece | null {
  let ids = 0;
  const newId = (): string => `alone-${++ids}`;
  const { formats, leadFormatId, frameRate, background, wardrobe, tempo } = around;
  const empty: Piece = {
    ...createPiece({ name: template.name, formats: [...formats], frameRate }, newId),
    leadFormatId,
    background,
    wardrobe,
    tempo,
  };
  const made = putIn(template, empty, newId);
  if (!made) return null;
  const { piece, refused } = applyEdits(
    { ...empty, gestures: made.gestures, media: made.media },
    [
      { type: 'layer.add', layers: made.layers },
      { type: 'layer.place', places: [{ id: made.group.id, at: freeMoment(0) }] },
      { type: 'slots.fill', id: made.group.id, values: { ...values } },
    ],
    resolveTimes(empty, null),
  );
  const group = piece.layers.find((layer) => layer.id === made.group.id);
  return refused !== null || !group ? null : { ...piece, end: group.end };
}
