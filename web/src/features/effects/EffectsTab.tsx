import { Box, Flex } from '@chakra-ui/react';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import { EFFECT_KINDS, effectParameters, effectTrackId, isEffectColour } from '@core/piece';
import type { Effect, EffectKind, Layer } from '@core/piece';
import { edit } from '../../store/desk-store';
import { useSelectedLayer } from '../../store/selectors';
import { usePlayheadTick } from '../../store/use-playhead-tick';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Empty } from '../../ui/Empty';
import { NumberField } from '../../ui/NumberField';
import { SortableList, useSortableRow } from '../../ui/SortableList';
import { Tick } from '../../ui/Tick';
import { ValueRow } from './ValueRow';
import { useOwnInFormat } from './use-own-in-format';
import { addEffect } from './add-effect';
import { WORDS } from './words';

/** Kinds whose look hangs on chance: their seed can be chosen. */
const SEEDED: ReadonlySet<EffectKind> = new Set(['grain', 'tear', 'shake']);

/** What is done to the selected layer as a whole, one after another. */
export function EffectsTab() {
  usePlayheadTick();
  const layer = useSelectedLayer();
  const [open, setOpen] = useState<string | null>(null);
  if (!layer) return <p className="muted">{WORDS.selectALayer}</p>;
  const add = (kind: EffectKind) => setOpen(addEffect(kind));
  return (
    <>
      <Choice
        aria-label={WORDS.addAnEffect}
        value=""
        width="100%"
        disabled={layer.locked}
        onChange={(e) => e.target.value && add(e.target.value as EffectKind)} // a value of the table
      >
        <option value="">{WORDS.choose}</option>
        {Object.entries(EFFECT_KINDS).map(([kind, { label }]) => (
          <option key={kind} value={kind}>
            {label}
          </option>
        ))}
      </Choice>
      {layer.effects.length === 0 && (
        <Empty title={WORDS.noEffects} marginTop="12px">
          {WORDS.howEffectsWork}
        </Empty>
      )}
      <Box marginTop="8px">
        <SortableList
          label={WORDS.effects}
          instructions={WORDS.howToSort}
          ids={layer.effects.map((effect) => effect.id)}
          onMove={(id, to) => edit([{ type: 'effect.order', layerId: layer.id, id, to }])}
        >
          {layer.effects.map((effect) => (
            <EffectRow
              key={effect.id}
              layer={layer}
              effect={effect}
              isOpen={open === effect.id}
              onOpen={() => setOpen(open === effect.id ? null : effect.id)}
            />
          ))}
        </SortableList>
      </Box>
    </>
  );
}

function EffectRow({
  layer,
  effect,
  isOpen,
  onOpen,
}: {
  layer: Layer;
  effect: Effect;
  isOpen: boolean;
  onOpen: () => void;
}) {
  const { label } = EFFECT_KINDS[effect.kind];
  const row = useSortableRow(effect.id, WORDS.move(label));
  const own = useOwnInFormat(layer);
  const put = (change: Partial<Effect>, gesture: string | null = null) =>
    edit([{ type: 'effect.put', layerId: layer.id, effect: { ...effect, ...change } }], gesture);
  return (
    <Box ref={row.ref} style={row.style} position="relative" role="listitem" className="list-row" display="block">
      <Flex alignItems="center" gap="6px">
        {row.handle}
        <Tick
          label={WORDS.on(label)}
          checked={effect.isOn}
          disabled={layer.locked}
          onChange={(isOn) => put({ isOn })}
        />
        <Button
          variant="quiet"
          hasTip={false}
          flex="1"
          justifyContent="flex-start"
          aria-expanded={isOpen}
          aria-label={isOpen ? WORDS.close(label) : WORDS.open(label)}
          onClick={onOpen}
        >
          {isOpen ? <ChevronDown size={14} /> : <ChevronRight size={14} />}
          {label}
        </Button>
        <Button
          variant="quiet"
          padding="0 4px"
          aria-label={WORDS.remove(label)}
          disabled={layer.locked}
          onClick={() => edit([{ type: 'effect.remove', layerId: layer.id, id: effect.id }])}
        >
          ×
        </Button>
      </Flex>
      {isOpen && (
        <>
          {Object.entries(effectParameters(effect.kind)).map(([id, parameter]) => (
            <ValueRow
              key={id}
              name={parameter.label}
              label={WORDS.valueOf(parameter.label, label)}
              track={effect.parameters[id]}
              begins={parameter.begins}
              disabled={layer.locked}
              own={own(effectTrackId(effect.id, id))}
              {...(isEffectColour(parameter) ? {} : { unit: parameter.unit, min: parameter.min, max: parameter.max })}
              onChange={(track, gesture) =>
                edit([{ type: 'effect.setTrack', layerId: layer.id, id: effect.id, parameter: id, track }], gesture)
              }
            />
          ))}
          {SEEDED.has(effect.kind) && (
            <div className="prop">
              <span />
              <span className="name muted">{WORDS.seed}</span>
              <NumberField
                label={WORDS.seedOf(label)}
                value={effect.seed}
                min={0}
                max={9999}
                decimals={0}
                disabled={layer.locked}
                onChange={(v, g) => put({ seed: Math.round(v) }, g)}
              />
            </div>
          )}
        </>
      )}
    </Box>
  );
}
