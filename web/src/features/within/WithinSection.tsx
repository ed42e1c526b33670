import { Flex } from '@chakra-ui/react';
import { Link } from 'react-router';
import type { Layer } from '@core/piece';
import { edit } from '../../store/desk-store';
import { Button } from '../../ui/Button';
import { NumberField } from '../../ui/NumberField';
import { Tick } from '../../ui/Tick';
import { Row } from '../ties/Row';
import { renewPiece } from './within-commands';
import { WORDS } from './words';

/** What is seen of a piece within this one. */
export function WithinSection({ layer }: { layer: Extract<Layer, { kind: 'piece' }> }) {
  const { pieceId, from, showsGround } = layer.content;
  const set = (change: Partial<{ from: number; showsGround: boolean }>, gesture: string | null = null) =>
    edit([{ type: 'within.set', id: layer.id, from, showsGround, ...change }], gesture);
  return (
    <section aria-label={WORDS.pieceWithin}>
      <Row name={WORDS.from}>
        <NumberField
          label={WORDS.from}
          value={from}
          unit="s"
          step={0.1}
          min={0}
          max={600}
          disabled={layer.locked}
          onChange={(value, gesture) => set({ from: value }, gesture)}
        />
      </Row>
      <Tick checked={showsGround} disabled={layer.locked} onChange={(isOn) => set({ showsGround: isOn })}>
        {WORDS.showsGround}
      </Tick>
      <Flex gap="6px" marginTop="6px" wrap="wrap">
        <Button variant="soft" asChild>
          <Link to={`/piece/${pieceId}`}>{WORDS.open}</Link>
        </Button>
        <Button variant="soft" disabled={layer.locked} onClick={() => void renewPiece(pieceId, true)}>
          {WORDS.takeOver}
        </Button>
      </Flex>
    </section>
  );
}
