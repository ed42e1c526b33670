import { Input } from '@chakra-ui/react';
import { hasProperty } from '@core/piece';
import type { Layer } from '@core/piece';
import { edit } from '../../store/desk-store';
import { Choice } from '../../ui/Choice';
import { Row } from '../ties/Row';
import { PART_NAMES } from './parts';
import type { SlotPart } from './parts';
import { WORDS } from './words';

/** What of a layer a slot can fill. */
function partsOf(layer: Layer): SlotPart[] {
  const colours: SlotPart[] = hasProperty(layer.kind, 'fill') ? ['colour'] : [];
  switch (layer.kind) {
    case 'text':
      return ['text', 'number', 'font', ...colours];
    case 'picture':
      return ['picture', 'footage', 'logo'];
    case 'rectangle':
      return ['picture', 'footage', ...colours];
    case 'path':
      return ['logo', ...colours];
    default:
      return colours;
  }
}

/** Makes a layer a slot, for when its group or piece is kept as a template. */
export function SlotSection({ layer }: { layer: Layer }) {
  const parts = partsOf(layer);
  if (parts.length === 0) return null;
  const { slot } = layer;
  const set = (next: Layer['slot']) =>
    edit([{ type: 'layer.setSlot', id: layer.id, slot: next }], `slot of ${layer.id}`);
  return (
    <section aria-label={WORDS.makeSlot}>
      <Row name={WORDS.makeSlot}>
        <Choice
          aria-label={WORDS.part}
          value={slot?.part ?? ''}
          disabled={layer.locked}
          onChange={(e) => {
            const part = parts.find((one) => one === e.target.value);
            set(part ? { slotId: slot?.slotId ?? slotIdOf(layer.name), part } : null);
          }}
        >
          <option value="">{WORDS.noSlot}</option>
          {parts.map((part) => (
            <option key={part} value={part}>
              {PART_NAMES[part]}
            </option>
          ))}
        </Choice>
      </Row>
      {slot && (
        <Row name={WORDS.slotName}>
          <Input
            aria-label={WORDS.slotName}
            width="120px"
            defaultValue={slot.slotId}
            key={slot.slotId}
            disabled={layer.locked}
            onKeyDown={(e) => {
              e.stopPropagation();
              if (e.key === 'Enter') e.currentTarget.blur();
            }}
            onBlur={(e) => set({ ...slot, slotId: slotIdOf(e.target.value) })}
          />
        </Row>
      )}
    </section>
  );
}

/** Ids of slots are short plain words. */
const slotIdOf = (name: string): string =>
  name
    .trim()
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 40) || 'slot';
