import { enablePatches, produceWithPatches } from 'immer';
import type { Patch } from 'immer';
import { isValue } from './patch-kinds';
import { changeProblem } from '../document/check-change';
import type { ResolvedTimes } from '../times/resolve-times';
import type { Piece } from '../document/schema';
import type { EditDefinition } from './define';
import { COMPOSITION_EDITS } from './composition-edits';
import { FORMAT_EDITS } from './format-edits';
import { GESTURE_EDITS } from './gesture-edits';
import { GROUP_EDITS } from './group-edits';
import { KEY_EDITS } from './key-edits';
import { LAYER_EDITS } from './layer-edits';
import { PIECE_EDITS } from './piece-edits';
import { TEMPLATE_EDITS } from './template-edits';
import { STYLE_EDITS } from './style-edits';
import { GUIDE_EDITS } from './guide-edits';
import { WARDROBE_EDITS } from './wardrobe-edits';

/**
 * Every change of a document is one of these named edits: plain data with a schema, a pure `apply`, and a way back in
 * the form of JSON patches that the same run yields. The interface never reaches into a document by hand.
 */
export const EDITS = {
  ...PIECE_EDITS,
  ...LAYER_EDITS,
  ...GROUP_EDITS,
  ...KEY_EDITS,
  ...GESTURE_EDITS,
  ...STYLE_EDITS,
  ...COMPOSITION_EDITS,
  ...GUIDE_EDITS,
  ...WARDROBE_EDITS,
  ...FORMAT_EDITS,
  ...TEMPLATE_EDITS,
} as const;
export type EditType = keyof typeof EDITS;

type PayloadOf<T extends EditType> = (typeof EDITS)[T] extends EditDefinition<infer P> ? P : never;
export type Edit = { [T in EditType]: { type: T } & PayloadOf<T> }[EditType];

enablePatches();

export interface EditResult {
  readonly piece: Piece;
  readonly patches: Patch[];
  readonly inverse: Patch[];
  readonly label: string;
  /** Why nothing was changed, in words; null if the edits were applied, or had nothing to change. */
  readonly refused: string | null;
}

/**
 * Applies edits in order as one step, all or none. An empty `patches` means that nothing would change: the same call
 * answers "can I?" and does it. Edits that are malformed, or whose result the schema would refuse, change nothing and
 * say why.
 * @param piece - valid.
 */
export function applyEdits(piece: Piece, edits: readonly Edit[], times: ResolvedTimes): EditResult {
  const first = edits[0];
  const label = first ? EDITS[first.type].label : '';
  const refuse = (refused: string): EditResult => ({ piece, patches: [], inverse: [], label, refused });
  const parsed: { definition: EditDefinition<unknown>; payload: unknown }[] = [];
  for (const edit of edits) {
    // The union of edits pairs each type with its own payload; TypeScript cannot follow the pair through the lookup.
    const definition = EDITS[edit.type] as unknown as EditDefinition<unknown>;
    const payload = definition.schema.safeParse(edit);
    if (!payload.success) return refuse(payload.error.issues[0]?.message ?? 'the change is malformed');
    parsed.push({ definition, payload: payload.data });
  }
  const [next, patches, inverse] = produceWithPatches(piece, (draft: Piece) => {
    for (const { definition, payload } of parsed) definition.apply(draft, payload, { times });
  });
  const problem = changeProblem(piece, next, !patches.every(isValue));
  return problem ? refuse(problem) : { piece: next, patches, inverse, label, refused: null };
}
