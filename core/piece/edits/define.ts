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

export const findLayer = (draft: Piece, id: string): Layer | undefined => draft.layers.find((layer) => layer.id === id);
