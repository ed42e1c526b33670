import type { SongAnalysis } from '../audio';
import { applyEdits, prepareTemplate, resolveTimes, slotValues, templateOf } from '../piece';
import type { GroupLayer, MadeFrom, Piece } from '../piece';

/** What a file of a row shows. */
export const ROW_SCOPES = { whole: 'Whole piece', alone: 'Group only' } as const;
export type RowScope = keyof typeof ROW_SCOPES;
export const ROW_SCOPE_IDS = Object.keys(ROW_SCOPES) as [RowScope, ...RowScope[]]; // keys of a literal object

export type RowPiece = { readonly ok: true; readonly piece: Piece } | { readonly ok: false; readonly why: string };

/** A group that was made from a template, with what it was made from; null if the piece has no such group. */
export function madeGroup(piece: Piece, groupId: string): { group: GroupLayer; made: MadeFrom } | null {
  const group = piece.layers.find((layer): layer is GroupLayer => layer.id === groupId && layer.kind === 'group');
  return group?.madeFrom ? { group, made: group.madeFrom } : null;
}

/** The template of a made group as it stands now, so that it can be filled and looked at by itself. */
export function templateOfGroup(piece: Piece, groupId: string, made: MadeFrom, analysis: SongAnalysis | null): Piece {
  const { name, version, slots, timing } = made;
  const template = { version, use: 'more' as const, mood: '', help: '', slots, fixed: [], timing };
  let ids = 0;
  return templateOf(piece, groupId, { name, template }, resolveTimes(piece, analysis), () => `row-${++ids}`);
}

/**
 * Makes pieces of rows: the same values give the same document.
 * @param values - by slot; slots that are not named keep what the group shows.
 */
export function prepareRows(
  piece: Piece,
  groupId: string,
  scope: RowScope,
  analysis: SongAnalysis | null,
): (values: Readonly<Record<string, string>>) => RowPiece {
  const found = madeGroup(piece, groupId);
  if (!found) return () => ({ ok: false, why: 'The group of this roster is no longer in the piece.' });
  if (scope === 'alone') {
    const template = templateOfGroup(piece, groupId, found.made, analysis);
    const fill = prepareTemplate(template, { ...piece, tempo: template.tempo });
    const shown = slotValues(piece.layers, found.group);
    return (values) => {
      const alone = fill({ ...shown, ...values });
      return alone
        ? { ok: true, piece: { ...alone, id: piece.id, name: piece.name } }
        : { ok: false, why: 'The group can’t be exported alone.' };
    };
  }
  const times = resolveTimes(piece, analysis);
  return (values) => {
    const filled = applyEdits(piece, [{ type: 'slots.fill', id: groupId, values: { ...values } }], times);
    return filled.refused === null ? { ok: true, piece: filled.piece } : { ok: false, why: filled.refused };
  };
}
