import { HUG_AXES, REPEAT_WAYS } from '@core/piece';
import type { Hug, Layer, Repeat } from '@core/piece';
import { edit } from '../../store/desk-store';
import { useSelectedLayer } from '../../store/selectors';
import { Choice } from '../../ui/Choice';
import { NumberField } from '../../ui/NumberField';
import { LagRow } from './LagRow';
import { LayerChoice } from './LayerChoice';
import { Row } from './Row';
import { WORDS } from './words';

const NEW_REPEAT: Omit<Repeat, 'way'> = {
  count: 5,
  columns: 5,
  step: [120, 120],
  radius: 300,
  turn: 0,
  scale: 1,
  fade: 1,
  delay: { unit: 'beats', value: 0 },
};
const SHAPES: ReadonlySet<Layer['kind']> = new Set(['rectangle', 'ellipse', 'path', 'figure', 'picture']);

/** Copies of the selected layer beside itself, and what it is laid about. */
export function CopiesTab() {
  const layer = useSelectedLayer();
  if (!layer) return <p className="muted">{WORDS.selectALayer}</p>;
  const set = (repeat: Repeat | null, gesture: string | null = null) =>
    edit([{ type: 'layer.setRepeat', id: layer.id, repeat }], gesture);
  const { repeat } = layer;
  return (
    <>
      <Row name={WORDS.copies}>
        <Choice
          aria-label={WORDS.copies}
          value={repeat?.way ?? ''}
          disabled={layer.locked}
          onChange={(e) => {
            const way = e.target.value as Repeat['way'] | ''; // a value of the table
            set(way === '' ? null : { ...NEW_REPEAT, ...repeat, way });
          }}
        >
          <option value="">{WORDS.noCopies}</option>
          {Object.entries(REPEAT_WAYS).map(([id, label]) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </Choice>
      </Row>
      {repeat && <RepeatFields layer={layer} repeat={repeat} set={set} />}
      {SHAPES.has(layer.kind) && (
        <>
          <hr className="rule" />
          <HugFields layer={layer} />
        </>
      )}
    </>
  );
}

interface NumberOfRepeat {
  readonly id: 'count' | 'columns' | 'radius' | 'turn' | 'scale' | 'fade';
  readonly min: number;
  readonly max: number;
  readonly factor: number;
  readonly unit: string;
  readonly decimals: number;
}
const NUMBERS: readonly NumberOfRepeat[] = [
  { id: 'count', min: 1, max: 200, factor: 1, unit: '', decimals: 0 },
  { id: 'columns', min: 1, max: 200, factor: 1, unit: '', decimals: 0 },
  { id: 'radius', min: -20_000, max: 20_000, factor: 1, unit: 'px', decimals: 1 },
  { id: 'turn', min: -3600, max: 3600, factor: 1, unit: '°', decimals: 1 },
  { id: 'scale', min: 1, max: 1000, factor: 100, unit: '%', decimals: 1 },
  { id: 'fade', min: 0, max: 100, factor: 100, unit: '%', decimals: 1 },
];
const isMeant = (id: NumberOfRepeat['id'], way: Repeat['way']): boolean =>
  id === 'columns' ? way === 'grid' : id === 'radius' ? way === 'circle' : true;

function RepeatFields({
  layer,
  repeat,
  set,
}: {
  layer: Layer;
  repeat: Repeat;
  set: (repeat: Repeat, gesture?: string | null) => void;
}) {
  return (
    <>
      {NUMBERS.filter(({ id }) => isMeant(id, repeat.way)).map(({ id, min, max, factor, unit, decimals }) => (
        <Row key={id} name={WORDS[id]}>
          <NumberField
            label={WORDS[id]}
            value={repeat[id] * factor}
            unit={unit}
            min={min}
            max={max}
            decimals={decimals}
            disabled={layer.locked}
            onChange={(value, gesture) =>
              set({ ...repeat, [id]: decimals === 0 ? Math.round(value) : value / factor }, gesture)
            }
          />
        </Row>
      ))}
      {repeat.way !== 'circle' && (
        <Row name={WORDS.step}>
          {([0, 1] as const).map((axis) => (
            <NumberField
              key={axis}
              label={WORDS.stepOf(axis === 0 ? WORDS.across : WORDS.down)}
              value={repeat.step[axis]}
              unit="px"
              disabled={layer.locked}
              onChange={(value, gesture) =>
                set({ ...repeat, step: axis === 0 ? [value, repeat.step[1]] : [repeat.step[0], value] }, gesture)
              }
            />
          ))}
        </Row>
      )}
      <LagRow
        name={WORDS.later}
        unitName={WORDS.laterUnit}
        lag={repeat.delay}
        max={60}
        disabled={layer.locked}
        onChange={(delay, gesture) => set({ ...repeat, delay }, gesture)}
      />
    </>
  );
}

/** Room about a layer when a shape begins to hug it, pixels of the lead format. */
const FIRST_ROOM = { padX: 32, padY: 20, axes: 'both' } as const;

function HugFields({ layer }: { layer: Layer }) {
  const { hug } = layer;
  const set = (next: Hug | null, gesture: string | null = null) =>
    edit([{ type: 'layer.setHug', id: layer.id, hug: next }], gesture);
  return (
    <>
      <Row name={WORDS.hugs}>
        <LayerChoice
          label={WORDS.hugs}
          none={WORDS.nothing}
          layer={layer}
          value={hug?.layerId ?? null}
          onChange={(id) => set(id === null ? null : { ...FIRST_ROOM, ...hug, layerId: id })}
        />
      </Row>
      {hug && (
        <Row name={WORDS.hugsAlong}>
          <Choice
            aria-label={WORDS.hugsAlong}
            value={hug.axes}
            disabled={layer.locked}
            onChange={(e) => set({ ...hug, axes: e.target.value as Hug['axes'] })} // options of the table
          >
            {Object.entries(HUG_AXES).map(([id, label]) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
          </Choice>
        </Row>
      )}
      {hug ? (
        <Row name={WORDS.padding}>
          {(['padX', 'padY'] as const).map((id) => (
            <NumberField
              key={id}
              label={WORDS.paddingOf(id === 'padX' ? WORDS.across : WORDS.down)}
              value={hug[id]}
              unit="px"
              min={-2000}
              max={2000}
              disabled={layer.locked}
              onChange={(value, gesture) => set({ ...hug, [id]: value }, gesture)}
            />
          ))}
        </Row>
      ) : (
        <p className="muted">{WORDS.howHuggingWorks}</p>
      )}
    </>
  );
}
