import type { GuideLine } from '@core/piece';
import { newId } from '../../platform/ids';
import { edit, useDesk } from '../../store/desk-store';

/** Guides as they are set, moved and taken away; places are shares of the frame, so that they serve every format. */
export const putGuide = (guide: GuideLine, gesture: string | null = null): boolean =>
  edit([{ type: 'guide.put', guide }], gesture);

export const removeGuide = (id: string, gesture: string | null = null): boolean =>
  edit([{ type: 'guide.remove', id }], gesture);

export function addGuide(axis: GuideLine['axis'], at = 0.5): void {
  putGuide({ id: newId(), axis, at });
}

/** Dropped outside of the frame a guide is gone. */
export function dropGuide(id: string, gesture: string): void {
  const guide = useDesk.getState().piece?.guides.find((other) => other.id === id);
  if (guide && (guide.at < 0 || guide.at > 1)) removeGuide(id, gesture);
}
