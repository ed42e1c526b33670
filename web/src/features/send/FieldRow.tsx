import { Box, Flex } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/** A name, and beside it what is chosen. */
export function FieldRow({ name, children }: { name: string; children: ReactNode }) {
  return (
    <Box className="prop" gridTemplateColumns="76px minmax(0, 1fr)" gap="8px">
      <span className="name">{name}</span>
      <Flex gap="6px" alignItems="center" wrap="wrap" minWidth={0}>
        {children}
      </Flex>
    </Box>
  );
}
