import { Dialog, Portal } from '@chakra-ui/react';
import type { ReactNode } from 'react';

interface Props {
  /** What the dialog is called for whoever cannot see it. */
  readonly label: string;
  readonly maxW: string;
  readonly width?: string;
  readonly padding?: string;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/** A dialog that is open as long as it is there, over everything else. */
export function DialogFrame({ label, maxW, width, padding = '5', onClose, children }: Props) {
  return (
    <Dialog.Root defaultOpen onOpenChange={({ open }) => !open && onClose()}>
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content maxW={maxW} {...(width === undefined ? {} : { width })} aria-label={label}>
            <Dialog.Body p={padding}>{children}</Dialog.Body>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
