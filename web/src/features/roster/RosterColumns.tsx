import { Box, Flex } from '@chakra-ui/react';
import type { Slot } from '@core/piece';
import type { Roster, Unmatched } from '@core/roster';
import { Choice } from '../../ui/Choice';
import { WORDS } from './words';

/** Which column fills which slot, and which says when a row begins. */
export function RosterColumns({
  roster,
  slots,
  left,
  onChange,
}: {
  roster: Roster;
  /** Columns and slots that belong to nothing. */
  left: Unmatched;
  slots: readonly Slot[];
  onChange: (roster: Roster) => void;
}) {
  const options = roster.columns.map((name, i) => (
    <option key={name} value={i}>
      {name}
    </option>
  ));
  return (
    <Flex gap="12px" wrap="wrap" marginBottom="8px" role="group" aria-label={WORDS.columns}>
      {slots.map((slot) => (
        <Flex key={slot.id} gap="6px" alignItems="center">
          <span className="muted">{slot.name}</span>
          <Choice
            aria-label={WORDS.columnOf(slot.name)}
            value={roster.mapping[slot.id] ?? ''}
            onChange={(e) => {
              const { [slot.id]: _old, ...others } = roster.mapping;
              const mapping = e.target.value === '' ? others : { ...others, [slot.id]: Number(e.target.value) };
              onChange({ ...roster, mapping });
            }}
          >
            <option value="">{WORDS.noColumn}</option>
            {options}
          </Choice>
        </Flex>
      ))}
      <Flex gap="6px" alignItems="center">
        <span className="muted">{WORDS.beginsAt}</span>
        <Choice
          aria-label={WORDS.columnOf(WORDS.beginsAt)}
          value={roster.beginsColumn ?? ''}
          onChange={(e) => onChange({ ...roster, beginsColumn: e.target.value === '' ? null : Number(e.target.value) })}
        >
          <option value="">{WORDS.afterTheOneBefore}</option>
          {options}
        </Choice>
      </Flex>
      {(left.columns.length > 0 || left.slots.length > 0) && (
        <Box role="status" width="100%" fontSize="13px" color="ember">
          {left.columns.length > 0 && <div>{WORDS.unusedColumns(left.columns)}</div>}
          {left.slots.length > 0 && <div>{WORDS.unfilledSlots(left.slots.map(({ name }) => name))}</div>}
        </Box>
      )}
    </Flex>
  );
}
