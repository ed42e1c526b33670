import type { Layer, TrackId } from '@core/piece';
import { useDesk } from '../../store/desk-store';
import { LeaveFormat } from '../details/FormatSection';
import { ownValue, setInFormat } from '../details/format-values';
import type { OwnInFormat } from './ValueRow';

/** What the format that is shown has of its own, of the effects and masks of a layer. */
export function useOwnInFormat(layer: Layer): (id: TrackId) => OwnInFormat | undefined {
  const formatId = useDesk((s) => s.formatId);
  return (id) => {
    const value = ownValue(layer, id, formatId);
    return value === null
      ? undefined
      : {
          value,
          set: (next, gesture) => void setInFormat(layer, formatId, id, next, gesture),
          leave: <LeaveFormat layer={layer} formatId={formatId} property={id} />,
        };
  };
}
