import type { Follow } from '@core/piece';
import { Choice } from '../../ui/Choice';
import { NumberField } from '../../ui/NumberField';
import { Row } from './Row';
import { WORDS } from './words';

type Lag = Follow['delay'];

/** How much later something comes, in beats or seconds. */
export function LagRow({
  name,
  unitName,
  lag,
  max,
  disabled,
  onChange,
}: {
  name: string;
  unitName: string;
  lag: Lag;
  max: number;
  disabled: boolean;
  onChange: (lag: Lag, gesture?: string) => void;
}) {
  return (
    <Row name={name}>
      <NumberField
        label={name}
        value={lag.value}
        step={0.05}
        min={0}
        max={max}
        disabled={disabled}
        onChange={(value, gesture) => onChange({ ...lag, value }, gesture)}
      />
      <Choice
        aria-label={unitName}
        value={lag.unit}
        disabled={disabled}
        onChange={(e) => onChange({ ...lag, unit: e.target.value as Lag['unit'] })} // a value of the table
      >
        {Object.entries(WORDS.units).map(([id, label]) => (
          <option key={id} value={id}>
            {label}
          </option>
        ))}
      </Choice>
    </Row>
  );
}
