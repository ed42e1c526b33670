import { Portal, Toast, Toaster, createToaster } from '@chakra-ui/react';
import { useEffect, useRef } from 'react';
import { WORDS } from './words';

export interface Notice {
  readonly text: string;
  /** Takes back what the notice tells of. */
  readonly undo?: (() => void) | undefined;
}

const SHOWN_MS = 6000;

/** Under the header: what stands at the bottom is worked with. */
const toaster = createToaster({ placement: 'top', overlap: true, max: 3, offsets: '52px' });

/** Tells what happened, the newest notice at a time, and offers to take it back. */
export default function Notices({ notice, onClose }: { notice: Notice | null; onClose: () => void }) {
  const close = useRef(onClose);
  close.current = onClose;
  const { text, undo } = notice ?? {};
  useEffect(() => {
    if (text === undefined) return;
    let id: string | undefined;
    let isOver = false;
    // The library draws at once what is told, which cannot be in the middle of drawing.
    queueMicrotask(() => {
      if (isOver) return;
      id = toaster.create({
        title: text,
        duration: SHOWN_MS,
        closable: true,
        ...(undo ? { action: { label: WORDS.undo, onClick: undo } } : {}),
        onStatusChange: ({ status }) => status === 'unmounted' && !isOver && close.current(),
      });
    });
    return () => {
      isOver = true;
      if (id !== undefined) toaster.remove(id);
    };
  }, [text, undo]);
  return (
    <Portal>
      <Toaster toaster={toaster}>
        {(toast) => (
          <Toast.Root>
            <Toast.Title>{toast.title}</Toast.Title>
            {toast.action && <Toast.ActionTrigger>{toast.action.label}</Toast.ActionTrigger>}
            <Toast.CloseTrigger aria-label={WORDS.closeTheNotice} />
          </Toast.Root>
        )}
      </Toaster>
    </Portal>
  );
}
