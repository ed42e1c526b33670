import { Tabs as ChakraTabs } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/** More stand in columns, as a list. */
const MAX_IN_LINE = 4;

/** Leaves of a panel, one shown at a time. */
export function Tabs<T extends string>({
  label,
  tabs,
  value,
  onChange,
  children,
}: {
  label: string;
  tabs: Readonly<Record<T, string>>;
  value: T;
  onChange: (tab: T) => void;
  /** The leaf that is shown. */
  children: ReactNode;
}) {
  return (
    <ChakraTabs.Root
      value={value}
      onValueChange={(e) => onChange(e.value as T)} // one of the table's
      activationMode="manual"
      variant={'leaves' as never} // of our own recipe (theme.ts)
      size={'fit' as never}
    >
      <ChakraTabs.List aria-label={label} data-many={Object.keys(tabs).length > MAX_IN_LINE || undefined}>
        {(Object.keys(tabs) as T[]).map((id) => (
          // keys of the table
          <ChakraTabs.Trigger key={id} value={id}>
            {tabs[id]}
          </ChakraTabs.Trigger>
        ))}
      </ChakraTabs.List>
      <ChakraTabs.Content value={value} tabIndex={-1}>
        {children}
      </ChakraTabs.Content>
    </ChakraTabs.Root>
  );
}
