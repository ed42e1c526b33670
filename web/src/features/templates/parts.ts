import { SLOT_KINDS } from '@core/piece';
import type { Layer } from '@core/piece';

export type SlotPart = NonNullable<Layer['slot']>['part'];
/** What a slot fills of a layer, in the words of the kinds of slots. */
export const PART_NAMES: Readonly<Record<SlotPart, string>> = SLOT_KINDS;
