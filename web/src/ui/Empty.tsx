import { EmptyState } from '@chakra-ui/react';
import type { BoxProps } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/** An empty place: what belongs here, and the next step. */
export function Empty({
  title,
  children,
  action,
  ...room
}: { title: string; children?: ReactNode; action?: ReactNode } & Omit<BoxProps, 'title' | 'children'>) {
  return (
    <EmptyState.Root
      {...({ variant: 'place', size: 'fit' } as object)} // of our own recipe (theme.ts)
      {...(room as object)}
    >
      <EmptyState.Content>
        <EmptyState.Title>{title}</EmptyState.Title>
        {children && <EmptyState.Description>{children}</EmptyState.Description>}
        {action}
      </EmptyState.Content>
    </EmptyState.Root>
  );
}
