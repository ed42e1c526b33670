import { Flex } from '@chakra-ui/react';
import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignHorizontalSpaceAround,
  AlignStartHorizontal,
  AlignStartVertical,
  AlignVerticalSpaceAround,
} from 'lucide-react';
import type { LucideIcon } from 'lucide-react';
import { Button } from '../../ui/Button';
import type { Alignment } from '../canvas/align';
import { align, distribute } from '../canvas/align-commands';
import { WORDS } from '../canvas/words';

const ICONS: Readonly<Record<Alignment, LucideIcon>> = {
  left: AlignStartVertical,
  centre: AlignCenterVertical,
  right: AlignEndVertical,
  top: AlignStartHorizontal,
  middle: AlignCenterHorizontal,
  bottom: AlignEndHorizontal,
};

/** Lines the selection up: one layer with the frame, several with one another. */
export function AlignRow({ count, disabled }: { count: number; disabled: boolean }) {
  return (
    <Flex role="toolbar" aria-label={WORDS.align} flexWrap="wrap" gap="1px" marginBottom="8px">
      {(Object.entries(ICONS) as [Alignment, LucideIcon][]).map(([to, Icon]) => (
        <Button
          key={to}
          variant="quiet"
          padding="0 4px"
          aria-label={WORDS.alignments[to]}
          disabled={disabled}
          onClick={() => align(to)}
        >
          <Icon size={15} />
        </Button>
      ))}
      {count > 2 && (
        <>
          <Button variant="quiet" padding="0 4px" aria-label={WORDS.distributeAcross} onClick={() => distribute('x')}>
            <AlignHorizontalSpaceAround size={15} />
          </Button>
          <Button variant="quiet" padding="0 4px" aria-label={WORDS.distributeDown} onClick={() => distribute('y')}>
            <AlignVerticalSpaceAround size={15} />
          </Button>
        </>
      )}
    </Flex>
  );
}
