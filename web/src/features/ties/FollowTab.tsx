import { Flex } from '@chakra-ui/react';
import { PROPERTIES, hasProperty } from '@core/piece';
import type { Follow, Layer, PropertyId } from '@core/piece';
import { edit } from '../../store/desk-store';
import { useSelectedLayer } from '../../store/selectors';
import { NumberField } from '../../ui/NumberField';
import { Tick } from '../../ui/Tick';
import { LagRow } from './LagRow';
import { LayerChoice } from './LayerChoice';
import { Row } from './Row';
import { WORDS } from './words';

const FOLLOWED: readonly PropertyId[] = ['position', 'scale', 'rotation', 'opacity'];
const NEW_FOLLOW: Omit<Follow, 'layerId'> = {
  properties: ['position'],
  keepsOwn: true,
  delay: { unit: 'beats', value: 0 },
  damping: 0,
  looksAt: false,
};

/** Whom the selected layer follows. */
export function FollowTab() {
  const layer = useSelectedLayer();
  if (!layer) return <p className="muted">{WORDS.selectALayer}</p>;
  const set = (follow: Follow | null, gesture: string | null = null) =>
    edit([{ type: 'layer.setFollow', id: layer.id, follow }], gesture);
  const { follow } = layer;
  return (
    <>
      <Row name={WORDS.follows}>
        <LayerChoice
          label={WORDS.follows}
          none={WORDS.nobody}
          layer={layer}
          value={follow?.layerId ?? null}
          onChange={(id) => set(id === null ? null : { ...NEW_FOLLOW, ...follow, layerId: id })}
        />
      </Row>
      {follow ? (
        <FollowFields layer={layer} follow={follow} set={set} />
      ) : (
        <p className="muted">{WORDS.howFollowingWorks}</p>
      )}
      <hr className="rule" />
      <Tick
        checked={layer.isGuide}
        disabled={layer.locked}
        onChange={(isGuide) => edit([{ type: 'layer.setFlags', ids: [layer.id], isGuide }])}
      >
        {WORDS.guide}
      </Tick>
    </>
  );
}

function FollowFields({
  layer,
  follow,
  set,
}: {
  layer: Layer;
  follow: Follow;
  set: (follow: Follow, gesture?: string | null) => void;
}) {
  const toggled = (property: PropertyId, isOn: boolean): PropertyId[] =>
    FOLLOWED.filter((other) => (other === property ? isOn : follow.properties.includes(other)));
  return (
    <>
      <p className="muted">{WORDS.takes}</p>
      <Flex gap="10px" flexWrap="wrap" role="group" aria-label={WORDS.takes}>
        {FOLLOWED.filter((property) => hasProperty(layer.kind, property)).map((property) => (
          <Tick
            key={property}
            checked={follow.properties.includes(property)}
            // One at least is taken over.
            disabled={layer.locked || (follow.properties.length === 1 && follow.properties[0] === property)}
            onChange={(isOn) => set({ ...follow, properties: toggled(property, isOn) })}
          >
            {PROPERTIES[property].label}
          </Tick>
        ))}
      </Flex>
      <Flex direction="column" gap="8px" margin="10px 0">
        <Tick checked={follow.keepsOwn} disabled={layer.locked} onChange={(keepsOwn) => set({ ...follow, keepsOwn })}>
          {WORDS.keepsOwn}
        </Tick>
        <Tick checked={follow.looksAt} disabled={layer.locked} onChange={(looksAt) => set({ ...follow, looksAt })}>
          {WORDS.looksAt}
        </Tick>
      </Flex>
      <LagRow
        name={WORDS.delay}
        unitName={WORDS.delayUnit}
        lag={follow.delay}
        max={600}
        disabled={layer.locked}
        onChange={(delay, gesture) => set({ ...follow, delay }, gesture)}
      />
      <Row name={WORDS.damping}>
        <NumberField
          label={WORDS.damping}
          value={follow.damping * 100}
          unit="%"
          min={0}
          max={99}
          disabled={layer.locked}
          onChange={(value, gesture) => set({ ...follow, damping: value / 100 }, gesture)}
        />
      </Row>
    </>
  );
}
