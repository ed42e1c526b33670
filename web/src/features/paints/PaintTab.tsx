import { Box, Flex } from '@chakra-ui/react';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { ReactNode } from 'react';
import type { Gradient, LayerOf, Paint } from '@core/piece';
import { edit } from '../../store/desk-store';
import { useSelectedLayer } from '../../store/selectors';
import { usePlayheadTick } from '../../store/use-playhead-tick';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { ColourField } from '../../ui/ColourField';
import { NumberField } from '../../ui/NumberField';
import { SortableList, useSortableRow } from '../../ui/SortableList';
import { Tick } from '../../ui/Tick';
import { setValue, valueNow } from '../desk/commands';
import { Row } from '../ties/Row';
import { GradientEditor, PaintSwatch } from './GradientEditor';
import {
  addPaint,
  closePart,
  gradientOf,
  isShape,
  movePaint,
  openPart,
  removePaint,
  reshaped,
  setGradient,
  setPaint,
  setStyle,
} from './parts';
import type { PartId, ShapeLayer } from './parts';
import { StrokeFields } from './StrokeFields';
import { WORDS } from './words';

/** Fills and strokes of the selected shape, the topmost first, and its corners. */
export function PaintTab() {
  usePlayheadTick();
  const layer = useSelectedLayer();
  const [open, setOpen] = useState<PartId>('fill');
  const id = layer?.id;
  useEffect(() => {
    if (id !== undefined) openPart(id, open);
    return closePart;
  }, [id, open]);
  if (!layer || !isShape(layer)) return <p className="muted">{WORDS.selectAShape}</p>;
  const toggle = (part: PartId) => () => setOpen(open === part ? '' : part);
  const { paints } = layer.content;
  const topFirst = [...paints].reverse();
  const nameOf = (paint: Paint) => {
    const number = paints.filter((other) => other.use === paint.use).indexOf(paint) + 2;
    return paint.use === 'fill' ? WORDS.furtherFill(number) : WORDS.furtherStroke(number);
  };
  return (
    <>
      <Flex gap="6px" marginBottom="8px">
        <Button variant="soft" disabled={layer.locked} onClick={() => setOpen(addPaint(layer, 'fill'))}>
          {WORDS.addFill}
        </Button>
        <Button variant="soft" disabled={layer.locked} onClick={() => setOpen(addPaint(layer, 'stroke'))}>
          {WORDS.addStroke}
        </Button>
      </Flex>
      <SortableList
        label={WORDS.paints}
        instructions={WORDS.howToSort}
        ids={topFirst.map((paint) => paint.id)}
        onMove={(part, to) => movePaint(layer, part, to)}
      >
        {topFirst.map((paint) => (
          <FurtherPaint
            key={paint.id}
            layer={layer}
            paint={paint}
            name={nameOf(paint)}
            isOpen={open === paint.id}
            onToggle={toggle(paint.id)}
          />
        ))}
      </SortableList>
      <FirstPaint layer={layer} part="stroke" isOpen={open === 'stroke'} onToggle={toggle('stroke')} />
      <FirstPaint layer={layer} part="fill" isOpen={open === 'fill'} onToggle={toggle('fill')} />
      {layer.kind === 'rectangle' && <Corners layer={layer} />}
    </>
  );
}

function PartRow({
  name,
  colour,
  gradient,
  isOpen,
  onToggle,
  before,
  after,
  children,
}: {
  name: string;
  colour: string;
  gradient: Gradient | null;
  isOpen: boolean;
  onToggle: () => void;
  before?: ReactNode;
  after?: ReactNode;
  children: ReactNode;
}) {
  return (
    <>
      <Flex alignItems="center" gap="6px">
        {before}
        <Button
          variant="quiet"
          hasTip={false}
          flex="1"
          justifyContent="flex-start"
          aria-expanded={isOpen}
          aria-label={isOpen ? WORDS.close(name) : WORDS.open(name)}
          onClick={onToggle}
        >
          {isOpen ? <ChevronDown size={14} /> : <ChevronRight size={14} />}
          <PaintSwatch colour={colour} gradient={gradient} /> {name}
        </Button>
        {after}
      </Flex>
      {isOpen && children}
    </>
  );
}

/** With what a part is painted: one colour, or a gradient with its stops. */
function PaintedWith({
  layer,
  part,
  name,
  colour,
  plain,
}: {
  layer: ShapeLayer;
  part: PartId;
  name: string;
  colour: string;
  /** What it is called to have no gradient of stops. */
  plain: string;
}) {
  const gradient = gradientOf(layer, part);
  return (
    <>
      <Row name={WORDS.paintedWith}>
        <Choice
          aria-label={WORDS.paintedWithOf(name)}
          value={gradient?.shape ?? ''}
          disabled={layer.locked}
          onChange={(e) => {
            const shape = e.target.value as Gradient['shape'] | ''; // a value of the table
            setGradient(layer, part, shape === '' ? null : reshaped(gradient, shape, colour, '#eee9df'), null);
          }}
        >
          <option value="">{plain}</option>
          {Object.entries(WORDS.gradients).map(([id, label]) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </Choice>
      </Row>
      {gradient && (
        <GradientEditor
          name={name}
          gradient={gradient}
          disabled={layer.locked}
          onChange={(next, gesture) => setGradient(layer, part, next, gesture)}
        />
      )}
    </>
  );
}

/** The shape's own fill or stroke, whose colour and width are properties with keyframes. */
function FirstPaint({
  layer,
  part,
  isOpen,
  onToggle,
}: {
  layer: ShapeLayer;
  part: 'fill' | 'stroke';
  isOpen: boolean;
  onToggle: () => void;
}) {
  const name = WORDS[part];
  const colour = valueNow(layer, part) as string; // a colour track
  return (
    <Box role="listitem" className="list-row" display="block">
      <PartRow name={name} colour={colour} gradient={gradientOf(layer, part)} isOpen={isOpen} onToggle={onToggle}>
        <Row name={WORDS.colour}>
          <ColourField
            label={WORDS.colourOf(name)}
            value={colour}
            onChange={(value, gesture) => setValue(layer, part, value, gesture)}
          />
        </Row>
        {part === 'stroke' && (
          <Row name={WORDS.width}>
            <NumberField
              label={WORDS.widthOf(name)}
              value={valueNow(layer, 'strokeWidth') as number} // a number track
              unit="px"
              min={0}
              max={1000}
              step={0.5}
              disabled={layer.locked}
              onChange={(value, gesture) => setValue(layer, 'strokeWidth', value, gesture)}
            />
          </Row>
        )}
        <PaintedWith
          layer={layer}
          part={part}
          name={name}
          colour={colour}
          plain={part === 'fill' && layer.content.gradient !== 'none' ? WORDS.twoColours : WORDS.oneColour}
        />
        {part === 'stroke' && (
          <StrokeFields
            name={name}
            style={layer.content.strokeStyle}
            disabled={layer.locked}
            onChange={(style, gesture) => setStyle(layer, part, style, gesture)}
          />
        )}
      </PartRow>
    </Box>
  );
}

function FurtherPaint({
  layer,
  paint,
  name,
  isOpen,
  onToggle,
}: {
  layer: ShapeLayer;
  paint: Paint;
  name: string;
  isOpen: boolean;
  onToggle: () => void;
}) {
  const row = useSortableRow(paint.id, WORDS.move(name));
  return (
    <Box ref={row.ref} style={row.style} position="relative" role="listitem" className="list-row" display="block">
      <PartRow
        name={name}
        colour={paint.colour}
        gradient={paint.gradient}
        isOpen={isOpen}
        onToggle={onToggle}
        before={
          <>
            {row.handle}
            <Tick
              label={WORDS.on(name)}
              checked={paint.isOn}
              disabled={layer.locked}
              onChange={(isOn) => setPaint(layer, paint.id, { isOn })}
            />
          </>
        }
        after={
          <Button
            variant="quiet"
            padding="0 4px"
            aria-label={WORDS.remove(name)}
            disabled={layer.locked}
            onClick={() => removePaint(layer, paint.id)}
          >
            ×
          </Button>
        }
      >
        <Row name={WORDS.colour}>
          <ColourField
            label={WORDS.colourOf(name)}
            value={paint.colour}
            onChange={(colour, gesture) => setPaint(layer, paint.id, { colour }, gesture)}
          />
        </Row>
        {paint.use === 'stroke' && (
          <Row name={WORDS.width}>
            <NumberField
              label={WORDS.widthOf(name)}
              value={paint.width}
              unit="px"
              min={0}
              max={1000}
              step={0.5}
              disabled={layer.locked}
              onChange={(width, gesture) => setPaint(layer, paint.id, { width }, gesture)}
            />
          </Row>
        )}
        <PaintedWith layer={layer} part={paint.id} name={name} colour={paint.colour} plain={WORDS.oneColour} />
        {paint.use === 'stroke' && (
          <StrokeFields
            name={name}
            style={paint.style}
            disabled={layer.locked}
            onChange={(style, gesture) => setStyle(layer, paint.id, style, gesture)}
          />
        )}
      </PartRow>
    </Box>
  );
}

/** How much of the corner radius each corner of a rectangle has. */
function Corners({ layer }: { layer: LayerOf<'rectangle'> }) {
  const { corners } = layer.content;
  // In the order in which they are seen: the two below are the other way round in the document.
  const shown = [0, 1, 3, 2] as const;
  return (
    <>
      <p className="muted">{WORDS.corners}</p>
      <Box display="grid" gridTemplateColumns="1fr 1fr" gap="4px">
        {shown.map((i) => (
          <NumberField
            key={i}
            label={WORDS.cornerOf(WORDS.cornerNames[i])}
            value={corners[i] * 100}
            unit="%"
            min={0}
            max={100}
            disabled={layer.locked}
            onChange={(value, gesture) =>
              edit(
                [
                  {
                    type: 'layer.setContent',
                    id: layer.id,
                    content: { corners: corners.map((own, k) => (k === i ? value / 100 : own)) },
                  },
                ],
                gesture,
              )
            }
          />
        ))}
      </Box>
    </>
  );
}
