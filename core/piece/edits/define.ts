import { isDraft, original } from 'immer';
import type { z } from 'zod';
import type { ResolvedTimes } from '../times/resolve-times';
import type { Layer } from '../document/layer-schema';
import type { Piece } from '../document/schema';

/** What an edit may look at besides the document: the times as they are before it. */
export interface EditContext {
  readonly times: ResolvedTimes;
}

export interface EditDefinition<P> {
  /** For the undo list, in the interface's words. */
  readonly label: string;
  readonly schema: z.ZodType<P>;
  /** Changes the draft. Unknown ids are ignored, so that an edit replayed on an older document does what it can. */
  readonly apply: (draft: Piece, payload: P, context: EditContext) => void;
}

export function defineEdit<P>(
  label: string,
  schema: z.ZodType<P>,
  apply: EditDefinition<P>['apply'],
): EditDefinition<P> {
  return { label, schema, apply };
}

/**
 * The layer of an id. Looked for in the document before the draft first: walking through a draft makes a draft of every
 * layer on the way, which costs more than the edit where a hundred layers are dragged.
 */
export function findLayer(draft: Piece, id: string): Layer | undefined {
  const before = isDraft(draft) ? original(draft) : undefined;
  const index = before ? before.layers.findIndex((layer) => layer.id === id) : -1;
  const likely = index >= 0 ? draft.layers[index] : undefined;
  return likely?.id === id ? likely : draft.layers.find((layer) => layer.id === id);
}
