import { Box, Flex, Slider } from '@chakra-ui/react';
import { useState } from 'react';
import { SPREADS, colourBetween, colourOf, widestGap, withStop } from '@core/piece';
import type { Gradient } from '@core/piece';
import { newId } from '../../platform/ids';
import { usePiece } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { ColourField } from '../../ui/ColourField';
import { NumberField } from '../../ui/NumberField';
import { Row } from '../ties/Row';
import { WORDS } from './words';

type Change = (gradient: Gradient, gesture: string | null) => void;

/** The stops of a gradient on a strip: dragged, added by a double click, coloured. */
export function GradientEditor({
  name,
  gradient,
  disabled,
  onChange,
}: {
  name: string;
  gradient: Gradient;
  disabled: boolean;
  onChange: Change;
}) {
  const { wardrobe } = usePiece();
  const [chosen, setChosen] = useState(0);
  const { stops } = gradient;
  const index = Math.min(chosen, stops.length - 1);
  const stop = stops[index]!; // a gradient has stops
  const literal = (colour: string) => colourOf(wardrobe, colour);
  const setStops = (next: Gradient['stops'], gesture: string | null = null) =>
    onChange({ ...gradient, stops: next }, gesture);
  const change = (part: Partial<Gradient['stops'][number]>, gesture: string | null) =>
    setStops(
      stops.map((other, i) => (i === index ? { ...other, ...part } : other)),
      gesture,
    );
  const add = (at: number) => {
    const more = withStop(stops, at, literal);
    if (!more) return;
    setStops(more.stops);
    setChosen(more.index);
  };
  const strip = stops.map(({ at, colour }) => `${literal(colour)} ${at * 100}%`).join(', ');
  return (
    <>
      <StopStrip
        name={name}
        gradient={gradient}
        chosen={index}
        background={`linear-gradient(90deg, ${stops.length > 1 ? strip : `${strip}, ${strip}`})`}
        disabled={disabled}
        onChoose={setChosen}
        onAdd={add}
        // Of the others the strip gives places rounded to its steps.
        onMove={(places, gesture) => change({ at: places[index] ?? stop.at }, gesture)}
      />
      <div className="prop">
        <span />
        <span className="name muted">{WORDS.stop(name, index + 1)}</span>
        <span className="fields">
          <ColourField
            compact
            label={WORDS.stopColour(name, index + 1)}
            value={stop.colour}
            onChange={(colour, gesture) => change({ colour }, gesture)}
          />
          <NumberField
            label={WORDS.stopAt(name, index + 1)}
            value={stop.at * 100}
            unit="%"
            min={(stops[index - 1]?.at ?? 0) * 100}
            max={(stops[index + 1]?.at ?? 1) * 100}
            decimals={1}
            width={58}
            disabled={disabled}
            onChange={(at, gesture) => change({ at: at / 100 }, gesture)}
          />
        </span>
      </div>
      <Flex gap="4px" flexWrap="wrap" marginBottom="6px">
        <Button variant="quiet" disabled={disabled} onClick={() => add(widestGap(stops))}>
          {WORDS.addStop}
        </Button>
        <Button
          variant="quiet"
          disabled={disabled || stops.length < 3}
          onClick={() => setStops(stops.filter((_, i) => i !== index))}
        >
          {WORDS.removeStop}
        </Button>
        <Button
          variant="quiet"
          disabled={disabled}
          onClick={() => setStops([...stops].reverse().map((other) => ({ ...other, at: 1 - other.at })))}
        >
          {WORDS.reverse}
        </Button>
      </Flex>
      {gradient.shape !== 'conic' && (
        <Row name={WORDS.beyond}>
          <Choice
            aria-label={WORDS.beyondOf(name)}
            value={gradient.spread}
            disabled={disabled}
            onChange={(e) => onChange({ ...gradient, spread: e.target.value as Gradient['spread'] }, null)} // of the table
          >
            {Object.entries(SPREADS).map(([id, label]) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
          </Choice>
        </Row>
      )}
    </>
  );
}

function StopStrip({
  name,
  gradient: { stops },
  chosen,
  background,
  disabled,
  onChoose,
  onAdd,
  onMove,
}: {
  name: string;
  gradient: Gradient;
  chosen: number;
  background: string;
  disabled: boolean;
  onChoose: (index: number) => void;
  onAdd: (at: number) => void;
  onMove: (places: readonly number[], gesture: string) => void;
}) {
  const { wardrobe } = usePiece();
  const [gesture, setGesture] = useState<string | null>(null);
  return (
    <Slider.Root
      min={0}
      max={1}
      step={0.001}
      value={stops.map((stop) => stop.at)}
      disabled={disabled}
      aria-label={stops.map((_, i) => WORDS.stop(name, i + 1))}
      onFocusChange={(e) => e.focusedIndex >= 0 && onChoose(e.focusedIndex)}
      onValueChange={(e) => {
        const now = gesture ?? newId();
        setGesture(now);
        onMove(e.value, now);
      }}
      onValueChangeEnd={() => setGesture(null)}
      size={'fit' as never} // of our own recipe (theme.ts)
      variant={'field' as never}
    >
      <Slider.Control
        data-testid="stop-strip"
        // A press beside the knobs moves none of them: it may be the first half of a double click.
        onPointerDownCapture={(e) => {
          if (e.target instanceof Element && !e.target.closest('[data-part=thumb]')) e.stopPropagation();
        }}
        onDoubleClick={(e) => {
          const box = e.currentTarget.getBoundingClientRect();
          onAdd(Math.min(1, Math.max(0, (e.clientX - box.left) / box.width)));
        }}
      >
        <Slider.Track style={{ background }} />
        {stops.map((stop, i) => (
          <Slider.Thumb
            key={i}
            index={i}
            data-chosen={i === chosen ? '' : undefined}
            style={{ background: colourOf(wardrobe, stop.colour) }}
            onPointerDown={() => onChoose(i)}
          >
            <Slider.HiddenInput />
          </Slider.Thumb>
        ))}
      </Slider.Control>
    </Slider.Root>
  );
}

/** A swatch of what a part is painted with. */
export function PaintSwatch({ colour, gradient }: { colour: string; gradient: Gradient | null }) {
  const { wardrobe } = usePiece();
  const literal = (value: string) => colourOf(wardrobe, value);
  const background = gradient
    ? `linear-gradient(90deg, ${[0, 0.25, 0.5, 0.75, 1].map((at) => literal(colourBetween(gradient.stops, at, literal))).join(', ')})`
    : literal(colour);
  return <Box as="span" className="swatch" style={{ background }} aria-hidden="true" />;
}
