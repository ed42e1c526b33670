import type { Track, TrackValue } from '@core/motion';
import { playhead } from '../../platform/clock';
import { useTimes } from '../../store/selectors';
import { keyHere } from '../desk/commands';
import { Button } from '../../ui/Button';
import { ColourField } from '../../ui/ColourField';
import { NumberField } from '../../ui/NumberField';
import { Star } from '../../ui/Star';
import { valueAt, withKeyToggled, withValue } from './track-keys';
import { WORDS } from './words';

export interface OwnInFormat {
  readonly value: TrackValue;
  readonly set: (value: TrackValue, gesture: string | null) => void;
  /** What lets it be as in the others. */
  readonly leave: React.ReactNode;
}

/** One value of an effect or a mask: its keyframe star, its name, its field. */
export function ValueRow({
  name,
  label,
  track,
  begins,
  unit = '',
  factor = 1,
  min,
  max,
  step = 1,
  disabled,
  own,
  onChange,
}: {
  /** What it is called where it stands, and for whoever cannot see where that is. */
  name: string;
  label: string;
  track: Track | undefined;
  begins: TrackValue;
  unit?: string;
  /** What is shown, for one of what is kept. */
  factor?: number;
  min?: number;
  max?: number;
  step?: number;
  disabled: boolean;
  /** Where the format that is shown has a value of its own: that value, and how it is changed and left. */
  own?: OwnInFormat | undefined;
  onChange: (track: Track, gesture: string | null) => void;
}) {
  const times = useTimes();
  const value = own?.value ?? valueAt(track, begins, times.timeOf, playhead.seconds);
  const here = track && keyHere(track);
  const set = (next: TrackValue, gesture: string | null) =>
    own ? own.set(next, gesture) : onChange(withValue(track, next), gesture);
  const toggle = () => {
    const next = withKeyToggled(track, begins);
    if (next) onChange(next, null);
  };
  const numberField = (shown: number, of: string, change: (v: number, g: string | null) => void) => (
    <NumberField
      key={of}
      label={of}
      value={shown * factor}
      unit={unit}
      step={step}
      {...(min === undefined ? {} : { min: min * factor })}
      {...(max === undefined ? {} : { max: max * factor })}
      {...(Array.isArray(value) ? { width: 58 } : {})}
      disabled={disabled}
      onChange={(v, g) => change(v / factor, g)}
    />
  );
  return (
    <div className="prop keyed">
      <Button
        variant="quiet"
        padding="0"
        opacity={(track?.keyframes.length ?? 0) > 0 ? '1' : '0.45'}
        aria-label={here ? WORDS.removeKeyframe(label) : WORDS.keyframeHere(label)}
        aria-pressed={here !== undefined}
        disabled={disabled || own !== undefined}
        onClick={toggle}
      >
        <Star pinned={here !== undefined} holds={here?.easing.type === 'hold'} size={15} />
      </Button>
      <span className={own ? 'name lamp' : 'name muted'}>
        {name}
        {own?.leave}
      </span>
      <span className="fields">
        {typeof value === 'number' && numberField(value, label, set)}
        {typeof value === 'string' && <ColourField compact label={label} value={value} onChange={set} />}
        {Array.isArray(value) &&
          (['x', 'y'] as const).map((axis, i) =>
            numberField(value[i] ?? 0, `${label} ${axis}`, (v, g) => set(i ? [value[0], v] : [v, value[1]], g)),
          )}
      </span>
    </div>
  );
}
