import { Button as ChakraButton, Portal, Tooltip } from '@chakra-ui/react';
import type { ButtonProps as ChakraButtonProps } from '@chakra-ui/react';
import { Keys } from './Keys';
import { keyHint } from './key-hints';

export interface ButtonProps extends Omit<ChakraButtonProps, 'variant' | 'size'> {
  /**
   * `lamp` is the one thing to do, `soft` what can be done besides, `quiet` one of many beside one another, `bare` looks
   * as its class says.
   */
  readonly variant?: 'lamp' | 'soft' | 'quiet' | 'bare';
  /** Whether a picture tells its name when pointed at; not where hundreds stand in rows. */
  readonly hasTip?: boolean;
}

/** Long enough that a pointer on its way calls nothing up. */
const TIP_AFTER_MS = 500;

/** A button in our own looks (theme.ts). One that shows only a picture tells its name, and its key, when pointed at. */
export function Button({ variant = 'soft', hasTip = true, ...props }: ButtonProps) {
  const { 'aria-label': label, children, unstyled, title } = props;
  const isTold = hasTip && label !== undefined && typeof children !== 'string' && !unstyled && variant !== 'bare';
  const look = variant as never; // variants of our own recipe
  if (!isTold) return <ChakraButton variant={look} {...props} />;
  const key = keyHint(label);
  return (
    <Tooltip.Root openDelay={TIP_AFTER_MS} closeDelay={0} lazyMount unmountOnExit positioning={{ placement: 'bottom' }}>
      <Tooltip.Trigger asChild>
        {/* Told once: the browser's own tip would stand beside it. */}
        <ChakraButton variant={look} {...props} title={undefined} />
      </Tooltip.Trigger>
      <Portal>
        <Tooltip.Positioner>
          <Tooltip.Content>
            {title ?? label} {key && <Keys of={key} />}
          </Tooltip.Content>
        </Tooltip.Positioner>
      </Portal>
    </Tooltip.Root>
  );
}
