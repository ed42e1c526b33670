import { NativeSelect } from '@chakra-ui/react';
import type { ComponentProps, CSSProperties } from 'react';

interface Props extends Omit<ComponentProps<typeof NativeSelect.Field>, 'variant' | 'size'> {
  /** `quiet` shows only its words until it is pointed at. */
  readonly variant?: 'field' | 'quiet';
  readonly disabled?: boolean | undefined;
  readonly style?: CSSProperties;
}

/** One of a few, by the system's own list: quick by keyboard, and at home on every device. */
export function Choice({ variant = 'field', disabled, style, className, ...field }: Props) {
  return (
    <NativeSelect.Root
      variant={variant as never} // variants of our own recipe (theme.ts)
      size={'fit' as never}
      {...(disabled === undefined ? {} : { disabled })}
      {...(style ? { style } : {})}
      {...(className ? { className } : {})}
    >
      <NativeSelect.Field {...field} />
      <NativeSelect.Indicator />
    </NativeSelect.Root>
  );
}
