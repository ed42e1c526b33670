import { useRef } from 'react';

interface Runnable {
  readonly run: () => void;
}

/**
 * What is chosen in something that lies over the page runs once that has gone and the focus is back where it was: it may
 * take the focus elsewhere.
 * @returns What notes the choice, and what runs it, which is called when the thing has gone.
 */
export function useRunOnExit(): [(chosen: Runnable | null) => void, () => void] {
  const noted = useRef<Runnable | null>(null);
  return [
    (chosen) => {
      noted.current = chosen;
    },
    () => {
      const { current } = noted;
      noted.current = null;
      current?.run();
    },
  ];
}
