import { Box, Input, Textarea } from '@chakra-ui/react';
import type { Edit, Slot } from '@core/piece';
import { ColourField } from '../../ui/ColourField';
import { FontChooser } from '../type/FontChooser';
import { MarkChoice } from './MarkChoice';
import { SongSlot } from './SongSlot';
import { WORDS } from './words';

type Change = (value: string, before?: readonly Edit[]) => void;

/** Longer samples have a field of several lines. */
const ONE_LINE = 60;

function SlotField({
  slot,
  value,
  disabled,
  autoFocus,
  onChange,
}: {
  slot: Slot;
  value: string;
  disabled: boolean;
  autoFocus: boolean;
  onChange: Change;
}) {
  const text = {
    'aria-label': slot.name,
    value,
    disabled,
    autoFocus,
    title: slot.help || undefined,
    width: '100%',
    onKeyDown: (e: React.KeyboardEvent) => e.key !== 'Escape' && e.key !== 'Enter' && e.stopPropagation(),
  };
  switch (slot.kind) {
    case 'logo':
    case 'picture':
    case 'footage':
      return (
        <MarkChoice
          name={slot.name}
          value={value}
          hasMarks={slot.kind === 'logo'}
          disabled={disabled}
          onChange={onChange}
        />
      );
    case 'colour':
      return <ColourField label={WORDS.colourOf(slot.name)} value={value} onChange={(next) => onChange(next)} />;
    case 'song':
      return <SongSlot name={slot.name} value={value} disabled={disabled} onChange={onChange} />;
    case 'font':
      return <FontChooser family={value} sample={slot.sample} onChoose={onChange} />;
    default:
      return slot.sample.length > ONE_LINE ? (
        <Textarea {...text} rows={3} onChange={(e) => onChange(e.target.value)} />
      ) : (
        <Input {...text} onChange={(e) => onChange(e.target.value)} />
      );
  }
}

/** The slots of a template, each with the field for what fills it. */
export function SlotFields({
  slots,
  values,
  tooLong,
  disabled = false,
  autoFocus = false,
  onChange,
}: {
  slots: readonly Slot[];
  /** What they show, by the slot's id; what is missing shows its sample. */
  values: Readonly<Record<string, string>>;
  /** Slots whose words have too little room. */
  tooLong: readonly string[];
  disabled?: boolean;
  /** Puts the caret into the first slot. */
  autoFocus?: boolean;
  /** @param before - edits that must come first: a font of its own is brought into the piece. */
  onChange: (slotId: string, value: string, before: readonly Edit[]) => void;
}) {
  return (
    <>
      {slots.map((slot, i) => (
        <Box key={slot.id} marginBottom="7px">
          <Box fontSize="12px" color="muted" marginBottom="2px" aria-hidden="true">
            {slot.name}
            {slot.help && ` – ${slot.help}`}
          </Box>
          <SlotField
            slot={slot}
            value={values[slot.id] ?? slot.sample}
            disabled={disabled}
            autoFocus={autoFocus && i === 0}
            onChange={(value, before = []) => onChange(slot.id, value, before)}
          />
          {tooLong.includes(slot.id) && (
            <Box role="status" fontSize="12px" color="ember">
              {WORDS.isLong}
            </Box>
          )}
        </Box>
      ))}
    </>
  );
}
