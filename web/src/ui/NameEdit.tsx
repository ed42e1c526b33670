import { Editable } from '@chakra-ui/react';

/** A name that is being changed in its place: Enter or leaving the field keeps it, Escape does not. */
export default function NameEdit({
  label,
  name,
  onDone,
}: {
  label: string;
  name: string;
  /** The new name, or null if it stays as it was. */
  onDone: (name: string | null) => void;
}) {
  return (
    <Editable.Root
      defaultEdit
      defaultValue={name}
      flex="1"
      minWidth="0"
      {...({ variant: 'name', size: 'fit' } as object)} // of our own recipe (theme.ts)
      onValueRevert={() => onDone(null)}
      onValueCommit={({ value }) => onDone(value.trim() === '' || value.trim() === name ? null : value.trim())}
      onKeyDown={(e) => e.stopPropagation()}
    >
      <Editable.Input aria-label={label} />
    </Editable.Root>
  );
}
