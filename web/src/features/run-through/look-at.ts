import type { Finding } from '@core/checks';
import { playhead } from '../../platform/clock';
import { selectLayers, setView } from '../../store/desk-store';

/** Goes to where a finding is seen: its layer selected, its format shown, the playhead there. */
export function lookAt({ layerId, formatId, at }: Pick<Finding, 'layerId' | 'formatId' | 'at'>): void {
  if (layerId !== null) selectLayers([layerId]);
  if (formatId !== null) setView({ formatId });
  if (at !== null) playhead.set(at);
}
