import { describe, expect, it } from '@jest/globals';
import { applyEdits, createPiece, parsePiece, putIn, resolveTimes } from '@core/piece';
import { ROW_SCOPE_IDS, prepareRows } from '@core/roster';
import { SHIPPED_TEMPLATES } from '@core/templates';
import { FRAME_RATES, freeMoment } from '@core/time';
import { countingIds } from '../../tests/helpers/documents';

const newId = countingIds('p');
const empty = createPiece(
  { name: 'Kites', formats: [{ id: 'wide', name: 'Wide', width: 1920, height: 1080 }], frameRate: FRAME_RATES['30'] },
  newId,
);
const made = putIn(SHIPPED_TEMPLATES[0]!, empty, newId)!;
const piece = applyEdits(
  { ...empty, end: freeMoment(30) },
  [
    { type: 'layer.add', layers: made.layers },
    { type: 'layer.place', places: [{ id: made.group.id, at: freeMoment(4) }] },
  ],
  resolveTimes(empty, null),
).piece;
const slot = made.group.madeFrom!.slots.find(({ kind }) => kind === 'text')!.id;
const words = (of: typeof piece): string[] =>
  of.layers.flatMap((layer) => (layer.kind === 'text' ? [layer.content.text] : []));

describe('a piece of a row', () => {
  it.each(ROW_SCOPE_IDS)('has its words, is valid, and is the same each time (%s)', (scope) => {
    const fill = () => prepareRows(piece, made.group.id, scope, null)({ [slot]: 'Oona Castell' });
    const row = fill();
    if (!row.ok) throw new Error(row.why);
    expect(words(row.piece)).toContain('Oona Castell');
    expect(words(piece)).not.toContain('Oona Castell');
    expect(parsePiece(JSON.parse(JSON.stringify(row.piece))).ok).toBe(true);
    expect(JSON.stringify(fill())).toBe(JSON.stringify(row));
  });
  it('that shows the group alone begins with it and is as long as it', () => {
    const [whole, alone] = ROW_SCOPE_IDS.map((scope) => prepareRows(piece, made.group.id, scope, null)({}));
    if (!whole?.ok || !alone?.ok) throw new Error('not made');
    expect(resolveTimes(whole.piece, null).end).toBe(30);
    const times = resolveTimes(alone.piece, null);
    const group = alone.piece.layers.find((layer) => layer.madeFrom)!;
    expect(times.timeOf(group.start)).toBe(0);
    expect(times.timeOf(group.end)).toBeCloseTo(times.end, 6);
  });
  it('is not made of a group that is gone', () => {
    expect(prepareRows(empty, made.group.id, 'whole', null)({})).toMatchObject({ ok: false });
  });
});
