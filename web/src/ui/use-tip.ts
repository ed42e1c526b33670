import { useEffect, useState } from 'react';
import type { FocusEvent, PointerEvent } from 'react';

/** Long enough that a pointer on its way calls nothing up. */
const TIP_AFTER_MS = 500;

/** Whether something is pointed at for long enough, or reached by keyboard, and what tells so. */
export function useTip() {
  const [state, setState] = useState<'away' | 'waiting' | 'shown'>('away');
  useEffect(() => {
    if (state === 'away') return;
    const timer = state === 'waiting' ? setTimeout(() => setState('shown'), TIP_AFTER_MS) : null;
    const onKey = (event: KeyboardEvent) => event.key === 'Escape' && setState('away');
    window.addEventListener('keydown', onKey);
    return () => {
      if (timer) clearTimeout(timer);
      window.removeEventListener('keydown', onKey);
    };
  }, [state]);
  const leave = () => setState('away');
  return {
    isShown: state === 'shown',
    onPointerEnter: (event: PointerEvent) => event.pointerType !== 'touch' && setState('waiting'),
    onPointerLeave: leave,
    onPointerDown: leave,
    onFocus: (event: FocusEvent) => event.target.matches(':focus-visible') && setState('waiting'),
    onBlur: leave,
  };
}
