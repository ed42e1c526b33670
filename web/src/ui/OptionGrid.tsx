import { Box } from '@chakra-ui/react';
import type { BoxProps } from '@chakra-ui/react';
import { useEffect, useRef } from 'react';
import type { KeyboardEvent, ReactNode } from 'react';

interface Props extends Omit<BoxProps, 'onKeyDown' | 'role'> {
  readonly label: string;
  /** How many stand in a row. */
  readonly columns: number;
  /** Elements with the role of an option. */
  readonly children: ReactNode;
}

const optionsIn = (grid: HTMLElement | null): HTMLElement[] => [
  ...(grid?.querySelectorAll<HTMLElement>('[role=option]') ?? []),
];

/** Options of which one is reached by Tab, the one that is chosen or was last gone to, and the others by arrow keys. */
export function OptionGrid({ label, columns, children, ...box }: Props) {
  const grid = useRef<HTMLDivElement>(null);
  const reach = (wanted: HTMLElement | undefined) => {
    for (const option of optionsIn(grid.current)) option.tabIndex = option === wanted ? 0 : -1;
  };
  // Whatever is in it by now.
  useEffect(() => {
    const options = optionsIn(grid.current);
    const [first] = options;
    reach(
      options.find((option) => option === document.activeElement) ??
        options.find((option) => option.ariaSelected === 'true') ??
        first,
    );
  });
  const onKeyDown = (event: KeyboardEvent) => {
    const options = optionsIn(grid.current);
    const at = options.indexOf(event.target as HTMLElement); // what has the focus is an element
    const last = options.length - 1;
    const steps: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -columns, ArrowDown: columns };
    const by = steps[event.key];
    const to = event.key === 'Home' ? 0 : event.key === 'End' ? last : by === undefined ? null : at + by;
    if (at < 0 || to === null) return;
    event.preventDefault();
    const next = options[to];
    if (!next) return;
    reach(next);
    next.focus();
  };
  return (
    <Box ref={grid} role="listbox" aria-label={label} onKeyDown={onKeyDown} {...box}>
      {children}
    </Box>
  );
}
