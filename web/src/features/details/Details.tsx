import { Box, Flex, Span } from '@chakra-ui/react';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { Fragment } from 'react';
import { BLEND_MODES, GRADIENTS, LAYER_KINDS, propertyDefinition, trackLabel, trackOf, familyOf } from '@core/piece';
import { PATH_OPERATIONS } from '@core/geometry';
import type { PathOperation } from '@core/geometry';
import type { TrackValue } from '@core/motion';
import type { BlendMode, Layer, PropertyId } from '@core/piece';
import { beatToBar, formatBarBeat, secondsToBeat } from '@core/time';
import type { Seconds } from '@core/time';
import { edit, useDesk } from '../../store/desk-store';
import { usePiece, useSelectedLayer, useTimes } from '../../store/selectors';
import { ColourField } from '../../ui/ColourField';
import { NumberField } from '../../ui/NumberField';
import { Star } from '../../ui/Star';
import { groupSelection, ungroupSelection } from '../desk/group-commands';
import {
  goOnScreen,
  goToKey,
  isOnScreen,
  keyHere,
  setValue as setAtPlayhead,
  toggleKey,
  valueNow,
} from '../desk/commands';
import { onDesk } from '../layers/layer-kinds';
import { axisLabels } from '../type/TypeSection';
import { useAxes } from '../type/families';
import { AlignRow } from './AlignRow';
import { EasingEditor } from './EasingEditor';
import { FormatSection, LeaveFormat } from './FormatSection';
import { ownValue, setInFormat } from './format-values';
import { shownProperties } from './shown-properties';
import { SlotSection } from '../templates/SlotSection';
import { Choice } from '../../ui/Choice';
import { Button } from '../../ui/Button';
import { Empty } from '../../ui/Empty';
import { usePlayheadTick } from '../../store/use-playhead-tick';
import { WORDS } from './words';

function PropertyRow({
  layer,
  property,
  label,
}: {
  layer: Layer;
  property: PropertyId;
  label?: string | null | undefined;
}) {
  const shown = propertyDefinition(property);
  const definition = label ? { ...shown, label } : shown;
  const formatId = useDesk((s) => s.formatId);
  const own = ownValue(layer, property, formatId);
  const track = trackOf(layer, property);
  const value = own ?? valueNow(layer, property);
  if (!track || value === null) return null;
  const setValue = (next: TrackValue, gesture: string | null) =>
    own === null
      ? setAtPlayhead(layer, property, next, gesture)
      : setInFormat(layer, formatId, property, next, gesture);
  const here = keyHere(track);
  const isAnimated = track.keyframes.length > 0;
  const f = definition.shownFactor;
  const limits = {
    ...(definition.min !== undefined ? { min: definition.min * f } : {}),
    ...(definition.max !== undefined ? { max: definition.max * f } : {}),
  };
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
      <Span display="flex" gap="4px">
        {typeof value === 'number' && (
          <NumberField
            label={definition.label}
            value={value * f}
            unit={definition.unit}
            step={definition.step}
            {...limits}
            disabled={layer.locked}
            onChange={(v, gesture) => setValue(v / f, gesture)}
          />
        )}
        {Array.isArray(value) &&
          [0, 1].map((i) => (
            <NumberField
              key={i}
              label={`${definition.label} ${property === 'dimensions' ? (i ? WORDS.height : WORDS.width) : i ? 'y' : 'x'}`}
              value={(value[i] ?? 0) * f}
              unit={definition.unit === '%' ? '%' : ''}
              step={definition.step}
              {...limits}
              width={58}
              decimals={1}
              disabled={layer.locked}
              onChange={(v, gesture) => setValue(i === 0 ? [v / f, value[1]] : [value[0], v / f], gesture)}
            />
          ))}
        {typeof value === 'string' && (
          <ColourField label={definition.label} value={value} onChange={(v, gesture) => setValue(v, gesture)} />
        )}
      </Span>
    </div>
  );
}

/** A layer that is not on screen at the playhead looks as if nothing were chosen: this says so and leads to it. */
function AwayNote({ from, to }: { from: Seconds; to: Seconds }) {
  if (isOnScreen(from, to)) return null;
  return (
    <div className="away">
      {WORDS.notOnScreenHere}
      <Button variant="quiet" onClick={() => goOnScreen(from, to)}>
        {WORDS.goToIt}
      </Button>
    </div>
  );
}

/** What the selection has, the most used first. */
export function Details() {
  usePlayheadTick();
  const piece = usePiece();
  const times = useTimes();
  const layer = useSelectedLayer();
  const count = useDesk((s) => s.selectedLayers.length);
  const selectedKeys = useDesk((s) => s.selectedKeys);
  const named = axisLabels(useAxes(layer?.kind === 'text' ? familyOf(piece.wardrobe, layer.content.family) : ''));
  if (!layer) {
    return (
      <aside className="details" aria-label={WORDS.details}>
        <Empty title={WORDS.nothingSelected}>
          <p>{WORDS.clickSomethingOnThe}</p>
          <p>
            {WORDS.press}
            <kbd>T</kbd>
            {WORDS.forNewWords}
            <kbd>{WORDS.space}</kbd>
            {WORDS.toPlay}
          </p>
        </Empty>
      </aside>
    );
  }
  const keyframes = (
    <>
      <hr className="rule" />
      <Flex alignItems="center" gap="6px">
        <Box as="strong" flex="1" fontWeight="600">
          {WORDS.keyframes}
        </Box>
        <Button variant="quiet" aria-label={WORDS.toTheKeyframeBefore} onClick={() => goToKey(-1)}>
          <ChevronLeft size={16} />
        </Button>
        <Button variant="quiet" aria-label={WORDS.toTheNextKeyframe} onClick={() => goToKey(1)}>
          <ChevronRight size={16} />
        </Button>
      </Flex>
      {selectedKeys.length > 0 ? (
        <EasingEditor />
      ) : (
        <Box as="p" className="muted" margin="6px 0">
          {WORDS.theStarBesideA}
        </Box>
      )}
      {selectedKeys.length === 1 && (
        <Box as="p" className="muted" fontSize="12px">
          {trackLabel(layer, selectedKeys[0]!.property)}
        </Box>
      )}
    </>
  );
  const { above, below } = onDesk(layer);
  const bar = (seconds: number) => formatBarBeat(beatToBar(times.grid, secondsToBeat(times.grid, seconds)));
  return (
    <aside className="details" aria-label={WORDS.details}>
      <Box as="h2" className="title" overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
        {count > 1 ? WORDS.layers(count) : layer.name}
      </Box>
      <Box className="muted" fontSize="12px" marginBottom="8px">
        {WORDS.barsTo(
          LAYER_KINDS[layer.kind].label.toLowerCase(),
          bar(times.timeOf(layer.start)),
          bar(times.timeOf(layer.end)),
          layer.locked ? WORDS.locked : '',
        )}
      </Box>
      <AwayNote from={times.timeOf(layer.start)} to={times.timeOf(layer.end)} />
      {(count > 1 || layer.kind === 'group') && (
        <Flex gap="6px" marginBottom="8px">
          {count > 1 && (
            <Button variant="soft" onClick={() => groupSelection()}>
              {WORDS.group}
            </Button>
          )}
          {count > 1 && (
            <Choice
              aria-label={WORDS.makeOneShape}
              value=""
              onChange={(e) => e.target.value && groupSelection(e.target.value as PathOperation)} // options of the table
            >
              <option value="">{WORDS.makeOneShape} …</option>
              {Object.entries(PATH_OPERATIONS).map(([id, { label }]) => (
                <option key={id} value={id}>
                  {label}
                </option>
              ))}
            </Choice>
          )}
          {layer.kind === 'group' && (
            <Button variant="soft" onClick={ungroupSelection} disabled={layer.locked}>
              {WORDS.ungroup}
            </Button>
          )}
        </Flex>
      )}
      <AlignRow count={count} disabled={layer.locked} />
      <div className="flow">
        {selectedKeys.length > 0 && (
          <>
            {keyframes}
            <hr className="rule" />
          </>
        )}
        {above?.map((Section, i) => (
          <Section key={i} layer={layer} />
        ))}
        {shownProperties(layer, named).map((property) => (
          <PropertyRow
            key={property}
            layer={layer}
            property={property}
            label={(named as Partial<Record<PropertyId, string | null>>)[property]}
          />
        ))}
        {'gradient' in layer.content && (
          <div className="prop">
            <span />
            <span className="name">{WORDS.filled}</span>
            <Choice
              aria-label={WORDS.kindOfFill}
              value={layer.content.gradient}
              onChange={(e) =>
                edit([{ type: 'layer.setContent', id: layer.id, content: { gradient: e.target.value } }])
              }
            >
              {GRADIENTS.map((g) => (
                <option key={g} value={g}>
                  {g === 'none' ? WORDS.evenly : WORDS.gradient(g)}
                </option>
              ))}
            </Choice>
          </div>
        )}
        {below?.map((Section, i) => (
          <Fragment key={i}>
            {i > 0 && <hr className="rule" />}
            <Section layer={layer} />
          </Fragment>
        ))}
        <div className="prop">
          <span />
          <span className="name">{WORDS.blend}</span>
          <Choice
            aria-label={WORDS.blendMode}
            value={layer.blend}
            onChange={(e) => edit([{ type: 'layer.setBlend', ids: [layer.id], blend: e.target.value as BlendMode }])}
          >
            {Object.entries(BLEND_MODES).map(([id, mode]) => (
              <option key={id} value={id}>
                {mode.label}
              </option>
            ))}
          </Choice>
        </div>
        <SlotSection layer={layer} />
        <FormatSection layer={layer} />
        {selectedKeys.length === 0 && keyframes}
      </div>
    </aside>
  );
}
