import { Button as ChakraButton } from '@chakra-ui/react';
import type { ButtonProps as ChakraButtonProps } from '@chakra-ui/react';
import { Suspense, lazy, useId } from 'react';
import type { Ref } from 'react';
import { useTip } from './use-tip';

const Tip = lazy(() => import('./Tip'));

export interface ButtonProps extends Omit<ChakraButtonProps, 'variant' | 'size'> {
  readonly ref?: Ref<HTMLButtonElement>;
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

/** What the button does itself, then what the tip does. */
const both =
  <E,>(own: ((event: E) => void) | undefined, tip: (event: E) => void) =>
  (event: E) => {
    own?.(event);
    tip(event);
  };

function ToldButton({ label, title, ...props }: ChakraButtonProps & { label: string }) {
  const ownId = useId();
  const id = props.id ?? ownId;
  const tip = useTip();
  return (
    <>
      {/* Told once: the browser's own tip would stand beside ours. */}
      <ChakraButton
        {...props}
        id={id}
        onPointerEnter={both(props.onPointerEnter, tip.onPointerEnter)}
        onPointerLeave={both(props.onPointerLeave, tip.onPointerLeave)}
        onPointerDown={both(props.onPointerDown, tip.onPointerDown)}
        onFocus={both(props.onFocus, tip.onFocus)}
        onBlur={both(props.onBlur, tip.onBlur)}
      />
      {tip.isShown && (
        <Suspense>
          <Tip of={id} label={label} text={title ?? label} />
        </Suspense>
      )}
    </>
  );
}
