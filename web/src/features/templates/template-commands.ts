import {
  MARKS,
  copyLayers,
  endFor,
  filledValues,
  holdOf,
  markValue,
  putIn,
  resolveTimes,
  slotValues,
  withDescendants,
} from '@core/piece';
import type { Edit, GroupLayer, Layer, MadeFrom, MarkId, Piece, Slot } from '@core/piece';
import { beatMoment, freeMoment, secondsToBeat } from '@core/time';
import type { Moment, Seconds } from '@core/time';
import { playhead } from '../../platform/clock';
import { newId } from '../../platform/ids';
import { edit, openDocument, selectLayers, setView, useDesk } from '../../store/desk-store';
import { WORDS } from './words';

/** Putting templates in, filling what was made from them, and making the next one of the same. */

/** Where something new begins: at the playhead, on its beat while snapping is on. */
function here(): Moment {
  const o = openDocument();
  if (!o) return freeMoment(0);
  const { grid } = o.times;
  if (!useDesk.getState().isSnapping) return freeMoment(playhead.seconds);
  const first = Math.ceil(secondsToBeat(grid, 0) - 1e-3);
  return beatMoment(Math.max(first, Math.round(secondsToBeat(grid, playhead.seconds))), grid);
}

/** The edits that put a template in at a moment. */
function putting(
  template: Piece,
  at: Moment,
  values: Readonly<Record<string, string>>,
): { group: GroupLayer; edits: Edit[] } | null {
  const o = openDocument();
  const made = o && putIn(template, o.piece, newId);
  if (!made) return null;
  return {
    group: made.group,
    edits: [
      ...made.media.map((media): Edit => ({ type: 'media.add', media })),
      ...made.gestures.map((gesture): Edit => ({ type: 'gesture.saveOwn', gesture })),
      { type: 'layer.add', layers: made.layers },
      { type: 'layer.place', places: [{ id: made.group.id, at }] },
      { type: 'slots.fill', id: made.group.id, values: { ...values } },
    ],
  };
}

/** Puts a template in at the playhead. @returns False if nothing was changed. */
export function putInTemplate(template: Piece, values: Readonly<Record<string, string>>): boolean {
  const at = here();
  const made = putting(template, at, values);
  if (!made || !edit([...made.edits, ...lengthening(at, made.group, resolveTimes(template, null).end)])) {
    setView({ notice: WORDS.couldNotBePutIn });
    return false;
  }
  selectLayers([made.group.id]);
  showHold(made.group.id);
  setView({ notice: WORDS.isIn(template.name) });
  return true;
}

/** Moves the playhead to where the group stands at rest, so that its words are seen. */
function showHold(groupId: string): void {
  const o = openDocument();
  const group = o?.piece.layers.find((layer) => layer.id === groupId);
  if (!o || !group) return;
  const { from, to } = holdOf(o.piece.layers, group, o.times);
  playhead.set(Math.min((from + to) / 2, Math.max(0, o.times.end - 0.05)));
}

export const fillSlot = (group: Layer, slotId: string, value: string, before: readonly Edit[] = []): boolean =>
  edit([...before, { type: 'slots.fill', id: group.id, values: { [slotId]: value } }], `slot ${group.id} ${slotId}`);

/** The mark after the one that is shown. */
function markAfter(value: string): string {
  const ids = Object.keys(MARKS) as MarkId[]; // keys of the table
  const at = ids.findIndex((id) => markValue(id) === value);
  return markValue(ids[(at + 1) % ids.length]!); // there are some
}

/** The first slot of words, and the first of a mark. */
export const nameSlot = ({ slots }: MadeFrom): Slot | undefined => slots.find((slot) => slot.kind === 'text');
export const markSlot = ({ slots }: MadeFrom): Slot | undefined => slots.find((slot) => slot.kind === 'logo');

/**
 * The same again for the next name, or with the next mark: everything is kept, and it comes right after this one, on the
 * next beat if this one ends on beats.
 * @returns the id of the new group.
 */
export function nextOne(group: GroupLayer, next: 'name' | 'mark'): string | null {
  const o = openDocument();
  if (!o || !group.madeFrom) return null;
  const copies = copyLayers(withDescendants(o.piece.layers, [group.id]), newId);
  const copy = copies.find((layer) => layer.kind === 'group' && layer.madeFrom !== null);
  if (!copy?.madeFrom) return null;
  const end = o.times.timeOf(group.end);
  const { grid } = o.times;
  const at = group.madeFrom.timing.endsOnBeat
    ? beatMoment(Math.ceil(secondsToBeat(grid, end) - 1e-3), grid)
    : freeMoment(end);
  const slot = next === 'mark' ? markSlot(copy.madeFrom) : undefined;
  const length = end - o.times.timeOf(group.start);
  const isDone = edit([
    { type: 'layer.add', layers: copies, at: o.piece.layers.indexOf(group) + 1 },
    { type: 'layer.place', places: [{ id: copy.id, at }] },
    ...(slot
      ? [
          {
            type: 'slots.fill' as const,
            id: copy.id,
            values: { [slot.id]: markAfter(slotValues(copies, copy)[slot.id] ?? slot.sample) },
          },
        ]
      : []),
    ...lengthening(at, copy, length),
  ]);
  if (!isDone) return null;
  setView({ notice: WORDS.nextIsIn });
  selectLayers([copy.id]);
  showHold(copy.id);
  return copy.id;
}

/** A piece without music ends no sooner than what is put in; with music, that says how long the piece is. */
function lengthening(at: Moment, { madeFrom }: Pick<Layer, 'madeFrom'>, length: Seconds): Edit[] {
  const o = openDocument();
  if (!o || o.piece.music || !madeFrom) return [];
  const end = o.times.timeOf(at) + length;
  return end > o.times.end ? [{ type: 'piece.setEnd', end: endFor(end, madeFrom.timing, o.times.grid) }] : [];
}

/** Makes a group anew from another version of its template, with what its slots hold. */
export function renewMade(group: GroupLayer, template: Piece): void {
  const o = openDocument();
  if (!o || !group.madeFrom) return;
  const made = putting(template, group.start, filledValues(o.piece.layers, group));
  if (!made) return;
  const inside = withDescendants(o.piece.layers, [group.id]).map((layer) => layer.id);
  const edits = made.edits.map((one): Edit =>
    one.type === 'layer.add'
      ? {
          ...one,
          layers: one.layers.map((layer) =>
            layer.id === made.group.id ? { ...layer, parentId: group.parentId } : layer,
          ),
          at: o.piece.layers.indexOf(group) + 1,
        }
      : one,
  );
  if (!edit([...edits, { type: 'layer.remove', ids: inside }])) return;
  selectLayers([made.group.id]);
  setView({ notice: WORDS.isRenewed });
}

const lengths = new WeakMap<Piece, { readonly seconds: Seconds; readonly beats: number }>();

/** How long a template is at home: worked out once, however often it is searched for. */
function ownLength(template: Piece): { readonly seconds: Seconds; readonly beats: number } {
  let found = lengths.get(template);
  if (!found) {
    const { grid, end } = resolveTimes(template, null);
    found = { seconds: end, beats: Math.round(secondsToBeat(grid, end) - secondsToBeat(grid, 0)) };
    lengths.set(template, found);
  }
  return found;
}

/** How long a template stands in the open piece, seconds and beats. */
export function lengthOf(template: Piece): { seconds: number; beats: number } {
  const { seconds, beats } = ownLength(template);
  const grid = openDocument()?.times.grid;
  const beat =
    grid && grid.beats.length > 1 ? (grid.beats[1] ?? 0) - (grid.beats[0] ?? 0) : seconds / Math.max(1, beats);
  return { beats, seconds: beats * beat };
}
