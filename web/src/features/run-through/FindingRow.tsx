import { Flex } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import type { Finding } from '@core/checks';
import { Button } from '../../ui/Button';
import { lookAt } from './look-at';

/** What was found, which leads to its place, and what helps beside it. */
export function FindingRow({
  at,
  text,
  color = 'text',
  children,
}: {
  at: Pick<Finding, 'layerId' | 'formatId' | 'at'>;
  text: string;
  color?: string;
  children?: ReactNode;
}) {
  return (
    <Flex className="list-row" flexWrap="wrap">
      <Button
        variant="quiet"
        flex="1 1 130px"
        padding="0"
        whiteSpace="normal"
        textAlign="left"
        justifyContent="flex-start"
        color={color}
        onClick={() => lookAt(at)}
      >
        {text}
      </Button>
      {children}
    </Flex>
  );
}
