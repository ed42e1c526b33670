import { Checkbox } from '@chakra-ui/react';
import type { CSSProperties, ReactNode } from 'react';

/** The box is seen, the input over it is pressed: whoever aims at either has the same thing. */
const OVER_ALL: CSSProperties = {
  clip: 'auto',
  inset: 0,
  width: '100%',
  height: '100%',
  margin: 0,
  opacity: 0,
  zIndex: 1,
  cursor: 'pointer',
};

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
      <Checkbox.HiddenInput style={OVER_ALL} {...(label ? { 'aria-label': label } : {})} />
      <Checkbox.Control />
      {children && <Checkbox.Label>{children}</Checkbox.Label>}
    </Checkbox.Root>
  );
}
