import { Span } from '@chakra-ui/react';
import { Link2, Unlink2 } from 'lucide-react';
import { useState } from 'react';
import { propertyDefinition, trackOf } from '@core/piece';
import type { TrackValue } from '@core/motion';
import type { Layer, PropertyId } from '@core/piece';
import { edit, useDesk } from '../../store/desk-store';
import { Button } from '../../ui/Button';
import { ColourField } from '../../ui/ColourField';
import { NumberField } from '../../ui/NumberField';
import { Star } from '../../ui/Star';
import { keyHere, toggleKey, valueEdit, valueNow } from '../desk/commands';
import { LeaveFormat } from './FormatSection';
import { ownValue, setInFormat } from './format-values';
import { linkedScale } from './linked-scale';
import { WORDS } from './words';

interface Props {
  readonly layer: Layer;
  /** The other selected layers that have the property: they are set along with it. */
  readonly others: readonly Layer[];
  readonly property: PropertyId;
  /** What it is called here, if not as everywhere. */
  readonly label?: string | null | undefined;
}

const componentOf = (value: TrackValue | null, i: number): TrackValue | null =>
  Array.isArray(value) ? (value[i] ?? null) : value;

/** One property of the selected layers: its keyframe star, its name, and its numbers or colour. */
export function PropertyRow({ layer, others, property, label }: Props) {
  const shown = propertyDefinition(property);
  const definition = label ? { ...shown, label } : shown;
  const formatId = useDesk((s) => s.formatId);
  const [isFree, setFree] = useState(false);
  const own = ownValue(layer, property, formatId);
  const track = trackOf(layer, property);
  const value = own ?? valueNow(layer, property);
  if (!track || value === null) return null;

  const set = (next: (old: TrackValue) => TrackValue, dragId: string | null) => {
    if (own !== null) return setInFormat(layer, formatId, property, next(own), dragId);
    const edits = [layer, ...others].flatMap((one) => {
      const old = one.locked ? null : valueNow(one, property);
      return old === null ? [] : [valueEdit(one, property, next(old))];
    });
    edit(edits, dragId);
  };
  const differs = (i: number) =>
    own === null && others.some((one) => componentOf(valueNow(one, property), i) !== componentOf(value, i));
  const here = keyHere(track);
  const isAnimated = track.keyframes.length > 0;
  const f = definition.shownFactor;
  const limits = {
    ...(definition.min !== undefined ? { min: definition.min * f } : {}),
    ...(definition.max !== undefined ? { max: definition.max * f } : {}),
  };
  const isLinked = property === 'scale' && !isFree;
  const numberField = (i: 0 | 1, vector: readonly [number, number]) => (
    <NumberField
      key={i}
      label={`${definition.label} ${property === 'dimensions' ? (i ? WORDS.height : WORDS.width) : i ? 'y' : 'x'}`}
      value={vector[i] * f}
      unit={definition.unit === '%' ? '%' : ''}
      step={definition.step}
      {...limits}
      width={property === 'scale' ? 52 : 58}
      decimals={1}
      disabled={layer.locked}
      isMixed={differs(i)}
      onChange={(v, dragId) =>
        set((old) => {
          const [x, y] = old as readonly [number, number]; // a vector like this one
          if (isLinked) return linkedScale([x, y], i, v / f, shown);
          return i === 0 ? [v / f, y] : [x, v / f];
        }, dragId)
      }
    />
  );
  return (
    <div className="prop">
      <Button
        variant="quiet"
        padding="0"
        opacity={isAnimated ? '1' : '0.45'}
        aria-label={here ? WORDS.removeTheKeyframeHere(definition.label) : WORDS.keyframeHere(definition.label)}
        aria-pressed={here !== undefined}
        disabled={layer.locked || own !== null}
        onClick={() => toggleKey(layer, property)}
      >
        <Star pinned={here !== undefined} holds={here?.easing.type === 'hold'} size={15} />
      </Button>
      <span className={own === null ? 'name' : 'name lamp'}>
        {definition.label}
        {own !== null && <LeaveFormat layer={layer} formatId={formatId} property={property} />}
      </span>
      <Span display="flex" gap={property === 'scale' ? '1px' : '4px'} alignItems="center">
        {typeof value === 'number' && (
          <NumberField
            label={definition.label}
            value={value * f}
            unit={definition.unit}
            step={definition.step}
            {...limits}
            disabled={layer.locked}
            isMixed={differs(0)}
            onChange={(v, dragId) => set(() => v / f, dragId)}
          />
        )}
        {Array.isArray(value) && numberField(0, value)}
        {Array.isArray(value) && property === 'scale' && (
          <Button
            variant="quiet"
            padding="0"
            minWidth="24px"
            aria-label={WORDS.linkScale}
            aria-pressed={isLinked}
            onClick={() => setFree(isLinked)}
          >
            {isLinked ? <Link2 size={13} /> : <Unlink2 size={13} />}
          </Button>
        )}
        {Array.isArray(value) && numberField(1, value)}
        {typeof value === 'string' && (
          <ColourField
            label={differs(0) ? WORDS.mixed(definition.label) : definition.label}
            value={value}
            onChange={(v, dragId) => set(() => v, dragId)}
          />
        )}
      </Span>
    </div>
  );
}
