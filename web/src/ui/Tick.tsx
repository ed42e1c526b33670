import { Checkbox } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/** Yes or no, beside its words. */
export function Tick({
  label,
  checked,
  disabled = false,
  onChange,
  children,
}: {
  /** For screen readers; without it the words beside it are its name. */
  label?: string;
  checked: boolean;
  disabled?: boolean;
  onChange: (checked: boolean) => void;
  children?: ReactNode;
}) {
  return (
    <Checkbox.Root
      checked={checked}
      disabled={disabled}
      size={'fit' as never} // of our own recipe (theme.ts)
      variant={'field' as never}
      onCheckedChange={(e) => onChange(e.checked === true)}
    >
      <Checkbox.HiddenInput {...(label ? { 'aria-label': label } : {})} />
      <Checkbox.Control />
      {children && <Checkbox.Label>{children}</Checkbox.Label>}
    </Checkbox.Root>
  );
}
