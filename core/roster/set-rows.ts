import { MAX_LAYERS, copyLayers, endFor, applyEdits, resolveTimes, withDescendants } from '../piece';
import type { Edit, GroupLayer, IdSource, Layer, Piece } from '../piece';
import type { SongAnalysis } from '../audio';
import { freeMoment } from '../time';
import type { Seconds } from '../time';

/** Rows that are put on the timeline: the edits, and how many rows there was room for. */
export interface SetRows {
  readonly edits: readonly Edit[];
  readonly set: number;
  /** Why not all of them; null if they all are. */
  readonly why: string | null;
}

/** What a row puts on the timeline. */
export interface RowToSet {
  /** By slot. */
  readonly values: Readonly<Record<string, string>>;
  /** When it begins; null if it follows the one before. */
  readonly begins: Seconds | null;
}

/**
 * Rows from a made group on: it becomes the first row, and each further row is a copy of it. A row begins where the
 * table says, or where the one before ends, on a beat if the group ends on beats; the first stays where the group is
 * unless the table says otherwise. A row whose words take longer to read stands longer.
 */
export function setRows(
  piece: Piece,
  group: GroupLayer,
  rows: readonly RowToSet[],
  analysis: SongAnalysis | null,
  newId: IdSource,
): SetRows {
  const { madeFrom } = group;
  if (!madeFrom) return { edits: [], set: 0, why: 'The group was made from no template.' };
  const source = withDescendants(piece.layers, [group.id]);
  const most = 1 + Math.floor((MAX_LAYERS - piece.layers.length) / source.length);
  const added: Layer[] = [];
  let before = { ...group };
  let last: Layer = group;
  // Each row by itself in an otherwise empty piece: what it takes does not grow with their number.
  for (const [i, { values, begins }] of rows.slice(0, most).entries()) {
    const copies = i === 0 ? source : copyLayers(source, newId);
    const id = copies[source.indexOf(group)]!.id; // copies keep their order
    // The groups around it do not come along.
    const alone: Piece = {
      ...piece,
      layers: copies.map((layer) => (layer.id === id ? { ...layer, parentId: null } : layer)),
    };
    const times = resolveTimes(alone, analysis);
    const follows = () => (i === 0 ? group.start : endFor(times.timeOf(before.end), madeFrom.timing, times.grid));
    const at = begins === null ? follows() : freeMoment(begins);
    const placed = applyEdits(alone, [{ type: 'layer.place', places: [{ id, at }] }], times).piece;
    const filled = applyEdits(
      placed,
      [{ type: 'slots.fill', id, values: { ...values } }],
      resolveTimes(placed, analysis),
    );
    if (filled.refused !== null) return { edits: [], set: i, why: filled.refused };
    const made = filled.piece.layers.find((layer): layer is GroupLayer => layer.id === id && layer.kind === 'group');
    if (!made) break;
    if (i > 0)
      added.push(
        ...filled.piece.layers.map((layer) => (layer.id === id ? { ...layer, parentId: group.parentId } : layer)),
      );
    before = made;
    if (i === 0 || times.timeOf(made.end) > times.timeOf(last.end)) last = made;
  }
  const set = Math.min(rows.length, most);
  const [first] = rows;
  const edits: Edit[] = [
    ...(first && first.begins !== null
      ? [{ type: 'layer.place' as const, places: [{ id: group.id, at: freeMoment(first.begins) }] }]
      : []),
    ...(first ? [{ type: 'slots.fill' as const, id: group.id, values: { ...first.values } }] : []),
    ...(added.length > 0 ? [{ type: 'layer.add' as const, layers: added, at: piece.layers.indexOf(group) + 1 }] : []),
  ];
  const { timeOf, end } = resolveTimes(piece, analysis);
  if (!piece.music && timeOf(last.end) > end) edits.push({ type: 'piece.setEnd', end: last.end });
  return { edits, set, why: set < rows.length ? `A piece holds at most ${MAX_LAYERS} layers.` : null };
}
