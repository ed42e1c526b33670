import { Box } from '@chakra-ui/react';
import { useEffect, useRef } from 'react';
import { beatToBar, beatToSeconds, isFreeTime, secondsToBeat } from '@core/time';
import { playhead } from '../../platform/clock';
import { useTimes } from '../../store/selectors';

/** How long a flash takes to fade, seconds. */
const FADE = 0.18;

/**
 * The edge of the frame lights up on every beat, in lamplight on "one": for checking the beats by eye. Never part of
 * the picture.
 */
export function BeatFlash() {
  const times = useTimes();
  const edge = useRef<HTMLDivElement>(null);
  useEffect(
    () =>
      playhead.subscribe((seconds) => {
        const { grid } = times;
        const beat = Math.floor(secondsToBeat(grid, seconds) + 1e-6);
        const age = seconds - beatToSeconds(grid, beat);
        const isOne = Math.abs(beatToBar(grid, beat).beat - 1) < 1e-6;
        if (!edge.current) return;
        edge.current.style.opacity = isFreeTime(grid, seconds) ? '0' : String(Math.max(0, 1 - age / FADE));
        edge.current.style.borderColor = isOne ? 'var(--lamp)' : 'var(--tide)';
      }),
    [times],
  );
  return (
    <Box
      ref={edge}
      data-testid="beat-flash"
      aria-hidden="true"
      position="absolute"
      inset="-6px"
      border="5px solid var(--tide)"
      borderRadius="4px"
      pointerEvents="none"
    />
  );
}
