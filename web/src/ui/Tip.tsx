import { Portal, Tooltip } from '@chakra-ui/react';
import { Keys } from './Keys';
import { keyHint } from './key-hints';

/** The name of a control and its key, below it. It is fetched when something is first pointed at. */
export default function Tip({ of, label, text }: { of: string; label: string; text: string }) {
  const key = keyHint(label);
  return (
    <Tooltip.Root open ids={{ trigger: of }} positioning={{ placement: 'bottom' }}>
      <Portal>
        <Tooltip.Positioner>
          <Tooltip.Content>
            {text} {key && <Keys of={key} />}
          </Tooltip.Content>
        </Tooltip.Positioner>
      </Portal>
    </Tooltip.Root>
  );
}
