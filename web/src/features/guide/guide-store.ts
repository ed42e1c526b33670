import * as z from 'zod';
import { create } from 'zustand';
import { memory } from '../../platform/memory';
import { STEP_IDS } from './steps';
import type { StepId } from './steps';

/** The piece that is guided, and what of it is done; remembered by the browser. */
interface Guide {
  readonly pieceId: string | null;
  readonly done: readonly StepId[];
}

const KEY = 'estrella.guide';
const NONE: Guide = { pieceId: null, done: [] };
const keptSchema = z.object({ pieceId: z.string().max(100), done: z.array(z.enum(STEP_IDS)).max(STEP_IDS.length) });

/** What another version of the program kept is begun anew, not trusted. */
function remembered(): Guide {
  try {
    return keptSchema.parse(JSON.parse(memory.getItem(KEY) ?? 'null'));
  } catch {
    return NONE;
  }
}

export const useGuide = create<Guide>(remembered);

function keep(guide: Guide): void {
  useGuide.setState(guide);
  memory.setItem(KEY, JSON.stringify(guide));
}

export const startGuide = (pieceId: string): void => keep({ pieceId, done: [] });
export const setDone = (done: readonly StepId[]): void => keep({ ...useGuide.getState(), done });
export const leaveGuide = (): void => keep(NONE);
