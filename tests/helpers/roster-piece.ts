import { applyEdits, createPiece, putIn, resolveTimes } from '@core/piece';
import type { GroupLayer, Piece } from '@core/piece';
import { rosterRow } from '@core/roster';
import type { Roster } from '@core/roster';
import { SHIPPED_TEMPLATES } from '@core/templates';
import { FRAME_RATES, freeMoment } from '@core/time';
import { countingIds } from './documents';

/** A small piece with one lower third that a roster can be made of. */
export function rosterPiece(name: string): { piece: Piece; group: GroupLayer; slot: string } {
  const newId = countingIds(`${name}-`);
  const formats = [
    { id: 'wide', name: 'Wide', width: 480, height: 270 },
    { id: 'tall', name: 'Tall', width: 270, height: 480 },
  ];
  const empty = createPiece({ name, formats, frameRate: FRAME_RATES['30'] }, newId);
  const made = putIn(SHIPPED_TEMPLATES[0]!, { ...empty, leadFormatId: 'wide' }, newId)!; // the shipped ones are templates
  const { piece } = applyEdits(
    { ...empty, leadFormatId: 'wide', background: { value: '#203040', keyframes: [] }, end: freeMoment(3) },
    [
      { type: 'layer.add', layers: made.layers },
      { type: 'layer.place', places: [{ id: made.group.id, at: freeMoment(0) }] },
    ],
    resolveTimes(empty, null),
  );
  const slot = made.group.madeFrom!.slots.find(({ kind }) => kind === 'text')!.id; // lower thirds have words
  return { piece, group: made.group, slot };
}

/** A roster of one column of names. */
export const rosterOf = (names: readonly string[], slot: string): Roster => ({
  columns: ['Name'],
  rows: names.map((name) => rosterRow([name])),
  mapping: { [slot]: 0 },
  beginsColumn: null,
});
