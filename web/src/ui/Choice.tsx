import { NativeSelect } from '@chakra-ui/react';
import type { ComponentProps } from 'react';

type Room = Pick<NativeSelect.RootProps, 'width' | 'minWidth' | 'maxWidth' | 'flex' | 'padding'>;

interface Props
  extends Omit<ComponentProps<typeof NativeSelect.Field>, 'variant' | 'size' | 'style' | keyof Room>, Room {
  /** `quiet` shows only its words until it is pointed at. */
  readonly variant?: 'field' | 'quiet';
  readonly disabled?: boolean | undefined;
}

/** One of a few, by the system's own list: quick by keyboard, and at home on every device. */
export function Choice({ variant = 'field', disabled, className, ...props }: Props) {
  const { width, minWidth, maxWidth, flex, padding, ...field } = props;
  const room = { width, minWidth, maxWidth, flex, padding };
  return (
    <NativeSelect.Root
      variant={variant as never} // variants of our own recipe (theme.ts)
      size={'fit' as never}
      {...(disabled === undefined ? {} : { disabled })}
      {...(Object.fromEntries(Object.entries(room).filter(([, value]) => value !== undefined)) as Room)} // what is given
      {...(className ? { className } : {})}
    >
      <NativeSelect.Field {...field} />
      <NativeSelect.Indicator />
    </NativeSelect.Root>
  );
}
