import { useEffect, useRef } from 'react';

/**
 * Keys for what is done on the canvas just now, before the desk's own, which would mean the whole layer.
 * @param take - true if the key was taken.
 */
export function useKeysFirst(take: (event: KeyboardEvent) => boolean): void {
  const newest = useRef(take);
  useEffect(() => {
    newest.current = take;
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.target instanceof HTMLElement && event.target.closest('input, textarea')) return;
      if (!newest.current(event)) return;
      event.preventDefault();
      event.stopPropagation();
    };
    window.addEventListener('keydown', listen, true);
    return () => window.removeEventListener('keydown', listen, true);
  }, []);
}
