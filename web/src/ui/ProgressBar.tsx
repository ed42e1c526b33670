import { Progress } from '@chakra-ui/react';
import type { BoxProps } from '@chakra-ui/react';

/** How far something is, 0 to 1. */
export function ProgressBar({ label, share, ...room }: { label: string; share: number } & BoxProps) {
  return (
    <Progress.Root
      value={Math.round(share * 100)}
      variant={'bar' as never} // of our own recipe (theme.ts)
      size={'fit' as never}
      {...(room as object)}
    >
      <Progress.Track aria-label={label}>
        <Progress.Range />
      </Progress.Track>
    </Progress.Root>
  );
}
