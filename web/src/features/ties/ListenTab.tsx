import { Box, Flex } from '@chakra-ui/react';
import { useMemo } from 'react';
import { LISTEN_SOURCES, canListen, trackLabel } from '@core/piece';
import type { Layer, Listen, ListenSource, TrackId } from '@core/piece';
import { envelopeOf } from '@core/scene';
import { edit } from '../../store/desk-store';
import { useSelectedLayer, useTimes } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Empty } from '../../ui/Empty';
import { NumberField } from '../../ui/NumberField';
import { shownProperties } from '../details/shown-properties';
import { heardCourse, listenToKeyframes, listeningOf, listeningParameters, startListening } from './listen-commands';
import { Row } from './Row';
import { WORDS } from './words';

/** Values of the selected layer that listen to the music. */
export function ListenTab() {
  const layer = useSelectedLayer();
  if (!layer) return <p className="muted">{WORDS.selectALayer}</p>;
  return (
    <>
      <Choice
        aria-label={WORDS.addAListener}
        value=""
        width="100%"
        disabled={layer.locked}
        onChange={(e) => e.target.value && startListening(layer, e.target.value as TrackId)} // a value of the list
      >
        <option value="">{WORDS.chooseAValue}</option>
        {[...shownProperties(layer, {}).filter((id) => canListen(layer, id)), ...listeningParameters(layer)].map(
          (id) => (
            <option key={id} value={id}>
              {trackLabel(layer, id)}
            </option>
          ),
        )}
      </Choice>
      {layer.listens.length === 0 && (
        <Empty title={WORDS.nothingListens} marginTop="12px">
          {WORDS.howListeningWorks}
        </Empty>
      )}
      <Box role="list" aria-label={WORDS.listens} marginTop="8px">
        {layer.listens.map((listen) => (
          <ListenRow key={listen.id} layer={layer} listen={listen} />
        ))}
      </Box>
    </>
  );
}

/** Values of times and levels, and how far they go. */
const TIMES = { attack: 1, release: 3, smoothing: 2 } as const;
const POINTS = 160;

function ListenRow({ layer, listen }: { layer: Layer; listen: Listen }) {
  const times = useTimes();
  const { label, isVector, shownFactor, unit } = listeningOf(layer, listen.property);
  const put = (change: Partial<Listen>, gesture: string | null = null) =>
    edit([{ type: 'listen.put', layerId: layer.id, listen: { ...listen, ...change } }], gesture);
  const course = useMemo(
    () => heardCourse(envelopeOf(listen, times.heard), layer, times, POINTS),
    [listen, layer, times],
  );
  const amounts = typeof listen.amount === 'number' ? [listen.amount] : listen.amount;
  return (
    <Box role="listitem" className="list-row" display="block">
      <Flex alignItems="center" gap="6px">
        <Box as="strong" flex="1" fontWeight="600">
          {label}
        </Box>
        <Choice
          aria-label={WORDS.hears(label)}
          value={listen.source}
          disabled={layer.locked}
          onChange={(e) => put({ source: e.target.value as ListenSource })} // a value of the table
        >
          {LISTEN_SOURCES.map((source) => (
            <option key={source} value={source}>
              {WORDS.sources[source]}
            </option>
          ))}
        </Choice>
        <Button
          variant="quiet"
          padding="0 4px"
          aria-label={WORDS.remove(label)}
          disabled={layer.locked}
          onClick={() => edit([{ type: 'listen.remove', layerId: layer.id, id: listen.id }])}
        >
          ×
        </Button>
      </Flex>
      <svg viewBox={`0 0 ${POINTS} 30`} className="heard" role="img" aria-label={WORDS.courseOf(label)}>
        <path d={`M0 30${course.map((level, i) => `L${i} ${30 - level * 28}`).join('')}L${POINTS} 30Z`} />
      </svg>
      <Row name={WORDS.amount}>
        {(isVector ? ([0, 1] as const) : ([0] as const)).map((axis) => (
          <NumberField
            key={axis}
            label={WORDS.amountOf(label, isVector ? (axis === 0 ? WORDS.across : WORDS.down) : '')}
            value={(amounts[axis] ?? amounts[0]!) * shownFactor} // an amount has a number
            unit={unit}
            step={1}
            disabled={layer.locked}
            onChange={(value, gesture) => {
              const own = value / shownFactor;
              const [x, y] = [amounts[0]!, amounts[1] ?? amounts[0]!]; // an amount has a number
              put({ amount: isVector ? (axis === 0 ? [own, y] : [x, own]) : own }, gesture);
            }}
          />
        ))}
      </Row>
      {(Object.keys(TIMES) as (keyof typeof TIMES)[]).map((id) => (
        <Row key={id} name={WORDS[id]}>
          <NumberField
            label={WORDS.valueOf(WORDS[id], label)}
            value={listen[id]}
            unit="s"
            step={0.01}
            min={0}
            max={TIMES[id]}
            decimals={3}
            disabled={layer.locked}
            onChange={(value, gesture) => put({ [id]: value }, gesture)}
          />
        </Row>
      ))}
      <Row name={WORDS.curve}>
        <NumberField
          label={WORDS.valueOf(WORDS.curve, label)}
          value={listen.curve}
          step={0.05}
          min={0.1}
          max={10}
          disabled={layer.locked}
          onChange={(curve, gesture) => put({ curve }, gesture)}
        />
      </Row>
      {([0, 1] as const).map((side) => (
        <Row key={side} name={side === 0 ? WORDS.from : WORDS.upTo}>
          <NumberField
            label={WORDS.valueOf(side === 0 ? WORDS.from : WORDS.upTo, label)}
            value={listen.range[side] * 100}
            unit="%"
            min={0}
            max={100}
            disabled={layer.locked}
            onChange={(value, gesture) => {
              const [low, high] = listen.range;
              put({ range: side === 0 ? [value / 100, high] : [low, value / 100] }, gesture);
            }}
          />
        </Row>
      ))}
      <Button variant="soft" disabled={layer.locked} onClick={() => listenToKeyframes(layer, listen)}>
        {WORDS.toKeyframes}
      </Button>
    </Box>
  );
}
