import { Box, Flex, Input } from '@chakra-ui/react';
import { useState } from 'react';
import { HIT_CLASSES } from '@core/audio';
import type { HitClass } from '@core/audio';
import { SPREAD_KINDS, SPREAD_ORDERS } from '@core/piece';
import type { SpreadKind, SpreadOrder, SpreadPlan } from '@core/piece';
import { useDesk } from '../../store/desk-store';
import { NumberField } from '../../ui/NumberField';
import { copiesOnBeats, spreadSelection } from '../desk/spread-commands';
import { Choice } from '../../ui/Choice';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

const STEPS = { '1': 'Beats', '0.5': WORDS.halfBeats, '0.25': WORDS.quarterBeats } as const;

/** Placing in bulk: the selected layers or stars, one on each place of a rhythm. */
export function SpreadSection() {
  const layers = useDesk((s) => s.selectedLayers.length);
  const keys = useDesk((s) => s.selectedKeys.length);
  const [plan, setPlan] = useState<SpreadPlan>({
    kind: 'beat',
    hitClass: 'low',
    weakest: 0.35,
    pattern: 'x..x..x.',
    step: 0.25,
  });
  const [order, setOrder] = useState<SpreadOrder>('forward');
  const [copies, setCopies] = useState(4);
  const set = (change: Partial<SpreadPlan>) => setPlan({ ...plan, ...change });
  const count = keys > 0 ? keys : layers;
  return (
    <section aria-label={WORDS.spreadOnTheBeats}>
      <Box as="p" className="muted" margin="0 0 6px">
        {count === 0
          ? WORDS.selectLayersOrKeyframes
          : WORDS.spreadFromThePlayhead(
              count,
              keys > 0 ? (keys === 1 ? 'keyframe' : 'keyframes') : count === 1 ? 'layer' : 'layers',
            )}
      </Box>
      <Flex gap="5px" flexWrap="wrap">
        <Choice
          aria-label={WORDS.spreadOn}
          value={plan.kind}
          onChange={(e) => set({ kind: e.target.value as SpreadKind })}
        >
          {Object.entries(SPREAD_KINDS).map(([id, k]) => (
            <option key={id} value={id}>
              {k.label}
            </option>
          ))}
        </Choice>
        {plan.kind === 'hit' && (
          <Choice
            aria-label={WORDS.kindOfHit}
            value={plan.hitClass}
            onChange={(e) => set({ hitClass: e.target.value as HitClass })}
          >
            {HIT_CLASSES.map((c) => (
              <option key={c} value={c}>
                {WORDS.hits(c)}
              </option>
            ))}
          </Choice>
        )}
        <Choice aria-label={WORDS.order} value={order} onChange={(e) => setOrder(e.target.value as SpreadOrder)}>
          {Object.entries(SPREAD_ORDERS).map(([id, label]) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </Choice>
      </Flex>
      {plan.kind === 'pattern' && (
        <Flex gap="5px" marginTop="6px">
          <Input
            className="mono"
            aria-label={WORDS.rhythm}
            value={plan.pattern}
            spellCheck={false}
            flex="1"
            minWidth="0"
            onKeyDown={(e) => e.stopPropagation()}
            onChange={(e) => set({ pattern: e.target.value })}
          />
          <Choice
            aria-label={WORDS.aCharacterIs}
            value={String(plan.step)}
            onChange={(e) => set({ step: Number(e.target.value) })}
          >
            {Object.entries(STEPS).map(([v, l]) => (
              <option key={v} value={v}>
                {l}
              </option>
            ))}
          </Choice>
        </Flex>
      )}
      <Flex gap="5px" flexWrap="wrap" marginTop="6px" alignItems="center">
        <Button variant="soft" disabled={count === 0} onClick={() => spreadSelection(plan, order)}>
          {WORDS.spread}
        </Button>
        <Button variant="soft" disabled={layers === 0} onClick={() => copiesOnBeats(plan, copies)}>
          {WORDS.copiesOnTheNext}
        </Button>
        <NumberField
          label={WORDS.numberOfCopies}
          value={copies}
          min={1}
          max={64}
          decimals={0}
          width={44}
          onChange={(v) => setCopies(Math.round(v))}
        />
      </Flex>
    </section>
  );
}
