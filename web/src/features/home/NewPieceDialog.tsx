import { Dialog, Portal } from '@chakra-ui/react';
import { NewPieceForm } from './NewPieceForm';
import type { OnMade } from './NewPieceForm';
import { WORDS } from './words';

/** The form for a new piece, over the home. */
export default function NewPieceDialog({ onMade, onClose }: { onMade: OnMade; onClose: () => void }) {
  return (
    <Dialog.Root defaultOpen onOpenChange={({ open }) => !open && onClose()}>
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content maxW="560px" aria-label={WORDS.newPiece}>
            <Dialog.Body p="6">
              <NewPieceForm onMade={onMade} onCancel={onClose} />
            </Dialog.Body>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
