import { Flex } from '@chakra-ui/react';
import type { Layer } from '@core/piece';
import { edit } from '../../store/desk-store';
import { Tick } from '../../ui/Tick';
import { WORDS } from './words';

const AS_KEYFRAMED = { turns: false, isEven: false };

/** How a layer goes along the way of its position; nothing for one that stands. */
export function TravelSection({ layer }: { layer: Layer }) {
  if ((layer.tracks.position?.keyframes.length ?? 0) < 2 && !layer.travel) return null;
  const travel = layer.travel ?? AS_KEYFRAMED;
  const set = (change: Partial<typeof travel>) => {
    const next = { ...travel, ...change };
    edit([{ type: 'layer.setTravel', id: layer.id, travel: next.turns || next.isEven ? next : null }]);
  };
  return (
    <Flex as="section" aria-label={WORDS.wayOf} direction="column" gap="4px" marginTop="10px">
      <Tick checked={travel.turns} disabled={layer.locked} onChange={(turns) => set({ turns })}>
        {WORDS.turnsWithWay}
      </Tick>
      <Tick checked={travel.isEven} disabled={layer.locked} onChange={(isEven) => set({ isEven })}>
        {WORDS.evenSpeed}
      </Tick>
    </Flex>
  );
}
