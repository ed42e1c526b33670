import { useEffect, useState } from 'react';
import { playhead } from '../platform/clock';

/** Repaints about ten times a second while the playhead moves: numbers are for reading, not for every frame. */
export function usePlayheadTick(): number {
  const [seconds, setSeconds] = useState(playhead.seconds);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | null = null;
    const stop = playhead.subscribe(() => {
      timer ??= setTimeout(() => {
        timer = null;
        setSeconds(playhead.seconds);
      }, 90);
    });
    return () => {
      stop();
      if (timer) clearTimeout(timer);
    };
  }, []);
  return seconds;
}
