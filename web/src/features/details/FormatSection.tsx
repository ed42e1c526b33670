import { Box } from '@chakra-ui/react';
import {
  HELD_WITHIN,
  HOLDS_ACROSS,
  HOLDS_DOWN,
  MASK_VALUE_IDS,
  SCALES_BY,
  effectParameters,
  effectTrackId,
  formatOf,
  isPropertyId,
  kindProperties,
  maskTrackId,
  maskValue,
  trackLabel,
} from '@core/piece';
import type { TrackValue } from '@core/motion';
import type { Constraints, Layer, PropertyId, TrackId } from '@core/piece';
import { edit, useDesk } from '../../store/desk-store';
import { usePiece } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { NumberField } from '../../ui/NumberField';
import { Tick } from '../../ui/Tick';
import { valueNow } from '../desk/commands';
import { Row } from '../ties/Row';
import { ownValue, setInFormat, setOverride } from './format-values';
import { WORDS } from './words';

/** Lets a property be what it is in the other formats. */
export function LeaveFormat({ layer, formatId, property }: { layer: Layer; formatId: string; property: TrackId }) {
  const label = trackLabel(layer, property);
  return (
    <Button
      variant="quiet"
      padding="0 4px"
      aria-label={WORDS.asInTheOthers(label)}
      disabled={layer.locked}
      onClick={() => setInFormat(layer, formatId, property, null)}
    >
      ×
    </Button>
  );
}

const PLAIN: Constraints = { horizontal: 'centre', vertical: 'middle', within: 'frame', scales: 'fit' };
const TABLES = { horizontal: HOLDS_ACROSS, vertical: HOLDS_DOWN, within: HELD_WITHIN, scales: SCALES_BY } as const;

/** What holds the layer in other frame sizes. */
function Holding({ layer }: { layer: Layer }) {
  const { constraints } = layer;
  const set = (next: Constraints | null) =>
    edit([{ type: 'layer.setConstraints', ids: [layer.id], constraints: next }]);
  return (
    <>
      <Tick checked={constraints !== null} disabled={layer.locked} onChange={(on) => set(on ? PLAIN : null)}>
        {WORDS.isHeld}
      </Tick>
      {constraints &&
        (Object.keys(TABLES) as (keyof typeof TABLES)[]).map((axis) => (
          // keys of the table
          <Row key={axis} name={WORDS.holding[axis]}>
            <Choice
              aria-label={WORDS.holding[axis]}
              value={constraints[axis]}
              disabled={layer.locked}
              maxWidth="132px"
              onChange={(e) => set({ ...constraints, [axis]: e.target.value })}
            >
              {Object.entries(TABLES[axis]).map(([id, label]) => (
                <option key={id} value={id}>
                  {label}
                </option>
              ))}
            </Choice>
          </Row>
        ))}
    </>
  );
}

/** Values of the layer's effects and masks, as they are in the lead where they stand still. */
const partsAsTheyStand = (layer: Layer): [TrackId, TrackValue][] => [
  ...layer.effects.flatMap((effect) =>
    Object.entries(effectParameters(effect.kind)).map(([id, { begins }]): [TrackId, TrackValue] => [
      effectTrackId(effect.id, id),
      effect.parameters[id]?.value ?? begins,
    ]),
  ),
  ...layer.masks.flatMap((mask) =>
    MASK_VALUE_IDS.map((id): [TrackId, TrackValue] => [
      maskTrackId(mask.id, id),
      mask.tracks[id]?.value ?? maskValue(id).begins,
    ]),
  ),
];
const standingValue = (layer: Layer, id: TrackId): TrackValue | null =>
  isPropertyId(id) ? valueNow(layer, id) : (partsAsTheyStand(layer).find(([other]) => other === id)?.[1] ?? null);

/** How the layer differs in the format that is shown, each difference with a way back. */
function Differences({ layer, formatId, name }: { layer: Layer; formatId: string; name: string }) {
  const override = layer.overrides[formatId];
  const offered = [
    ...(Object.keys(kindProperties(layer.kind)) as PropertyId[]).filter((property) => property !== 'position'), // keys of the table
    ...partsAsTheyStand(layer).map(([id]) => id),
  ].filter((id) => ownValue(layer, id, formatId) === null);
  const isMoved = override?.move.some((way) => way !== 0) ?? false;
  return (
    <>
      <Tick
        checked={override?.hidden ?? false}
        disabled={layer.locked}
        onChange={(hidden) => setOverride(layer, formatId, { hidden })}
      >
        {WORDS.hiddenIn(name)}
      </Tick>
      {isMoved && override && (
        <Row name={WORDS.movedIn(name)}>
          {([0, 1] as const).map((axis) => (
            <NumberField
              key={axis}
              label={`${WORDS.movedIn(name)} ${axis ? 'y' : 'x'}`}
              value={override.move[axis]}
              unit="px"
              width={62}
              decimals={1}
              disabled={layer.locked}
              onChange={(v, gesture) =>
                setOverride(layer, formatId, { move: axis ? [override.move[0], v] : [v, override.move[1]] }, gesture)
              }
            />
          ))}
          <Button
            variant="quiet"
            padding="0 4px"
            aria-label={WORDS.asInTheOthers(WORDS.movedIn(name))}
            disabled={layer.locked}
            onClick={() => setOverride(layer, formatId, { move: [0, 0] })}
          >
            ×
          </Button>
        </Row>
      )}
      {override && override.scale !== 1 && (
        <Row name={WORDS.scaledIn(name)}>
          <NumberField
            label={WORDS.scaledIn(name)}
            value={override.scale * 100}
            unit="%"
            min={1}
            max={10000}
            disabled={layer.locked}
            onChange={(v, gesture) => setOverride(layer, formatId, { scale: v / 100 }, gesture)}
          />
          <Button
            variant="quiet"
            padding="0 4px"
            aria-label={WORDS.asInTheOthers(WORDS.scaledIn(name))}
            disabled={layer.locked}
            onClick={() => setOverride(layer, formatId, { scale: 1 })}
          >
            ×
          </Button>
        </Row>
      )}
      <Row name={WORDS.differsIn(name)}>
        <Choice
          aria-label={WORDS.differsIn(name)}
          value=""
          disabled={layer.locked}
          maxWidth="132px"
          onChange={(e) => {
            const property = offered.find((one) => one === e.target.value);
            const value = property && standingValue(layer, property);
            if (property && value !== undefined && value !== null) setInFormat(layer, formatId, property, value);
          }}
        >
          <option value="">{WORDS.aProperty}</option>
          {offered.map((property) => (
            <option key={property} value={property}>
              {trackLabel(layer, property)}
            </option>
          ))}
        </Choice>
      </Row>
      {override && (
        <Button
          variant="quiet"
          disabled={layer.locked}
          onClick={() => edit([{ type: 'layer.setOverride', id: layer.id, formatId, override: null }])}
        >
          {WORDS.followTheLeadFormat}
        </Button>
      )}
    </>
  );
}

/** What a layer is in the other frame sizes. */
export function FormatSection({ layer }: { layer: Layer }) {
  const piece = usePiece();
  const formatId = useDesk((s) => s.formatId);
  const format = formatOf(piece, formatId);
  return (
    <section aria-label={WORDS.frameSizes}>
      <hr className="rule" />
      <Box as="strong" fontWeight="600">
        {WORDS.frameSizes}
      </Box>
      <Holding layer={layer} />
      {piece.leadFormatId !== format.id && <Differences layer={layer} formatId={format.id} name={format.name} />}
    </section>
  );
}
