import { CloseButton, Dialog, Portal } from '@chakra-ui/react';
import { Keys } from '../../ui/Keys';
import { KEY_COMMANDS } from './keys';
import { WORDS } from './words';

/** Every key and what it does, from the table that the keyboard goes by. */
export function KeySheet({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  return (
    <Dialog.Root
      open={isOpen}
      onOpenChange={(e) => !e.open && onClose()}
      lazyMount
      unmountOnExit
      scrollBehavior="inside"
    >
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content className="key-sheet" aria-label={WORDS.keys}>
            <Dialog.Header>
              <Dialog.Title>{WORDS.keys}</Dialog.Title>
            </Dialog.Header>
            {/* Longer than a small window: reached by Tab, so that the arrow keys scroll it. */}
            <Dialog.Body tabIndex={0}>
              <dl>
                {KEY_COMMANDS.map(({ keys, label }) => (
                  <div key={label}>
                    <dt>{label}</dt>
                    <dd>{keys[0] && <Keys of={keys[0]} />}</dd>
                  </div>
                ))}
              </dl>
            </Dialog.Body>
            <Dialog.CloseTrigger asChild>
              <CloseButton aria-label={WORDS.closeTheKeys} />
            </Dialog.CloseTrigger>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
