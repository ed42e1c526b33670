import { Button as ChakraButton } from '@chakra-ui/react';
import type { ButtonProps as ChakraButtonProps } from '@chakra-ui/react';
import { Suspense, lazy, useId } from 'react';
import { useTip } from './use-tip';

const Tip = lazy(() => import('./Tip'));

export interface ButtonProps extends Omit<ChakraButtonProps, 'variant' | 'size'> {
  /**
   * `lamp` is the one thing to do, `soft` what can be done besides, `quiet` one of many beside one another, `bare` looks
   * as its class says.
   */
  readonly variant?: 'lamp' | 'soft' | 'quiet' | 'bare';
  /** Whether a picture tells its name when pointed at; not where hundreds stand in rows. */
  readonly hasTip?: boolean;
}

/** A button in our own looks (theme.ts). One that shows only a picture tells its name, and its key, when pointed at. */
export function Button({ variant = 'soft', hasTip = true, ...props }: ButtonProps) {
  const { 'aria-label': label, children, unstyled } = props;
  const isTold = hasTip && label !== undefined && typeof children !== 'string' && !unstyled && variant !== 'bare';
  const look = variant as never; // variants of our own recipe
  return isTold ? <ToldButton {...props} variant={look} label={label} /> : <ChakraButton variant={look} {...props} />;
}

function ToldButton({ label, title, ...props }: ChakraButtonProps & { label: string }) {
  const ownId = useId();
  const id = props.id ?? ownId;
  const { isShown, ...pointed } = useTip();
  return (
    <>
      {/* Told once: the browser's own tip would stand beside ours. Its own handlers come first. */}
      <ChakraButton
        {...pointed}
        {...props}
        id={id}
        onPointerEnter={(e) => (props.onPointerEnter?.(e), pointed.onPointerEnter(e))}
        onPointerLeave={(e) => (props.onPointerLeave?.(e), pointed.onPointerLeave())}
        onPointerDown={(e) => (props.onPointerDown?.(e), pointed.onPointerDown())}
        onFocus={(e) => (props.onFocus?.(e), pointed.onFocus(e))}
        onBlur={(e) => (props.onBlur?.(e), pointed.onBlur())}
      />
      {isShown && (
        <Suspense>
          <Tip of={id} label={label} text={title ?? label} />
        </Suspense>
      )}
    </>
  );
}
