import { Box, CloseButton, Dialog, Input, Portal } from '@chakra-ui/react';
import { Printer } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../../ui/Button';
import { Keys } from '../../ui/Keys';
import { keyParts } from '../../ui/key-hints';
import { KEY_GROUPS } from './keys';
import { WORDS } from './words';

/** The groups with the shortcuts whose name or key has all the words of the search; empty groups are left out. */
function matchingGroups(search: string) {
  const words = search.toLowerCase().split(/\s+/u).filter(Boolean);
  return KEY_GROUPS.map(({ title, commands }) => ({
    title,
    commands: commands.filter(({ label, keys }) => {
      const text = `${title} ${label} ${keyParts(keys[0] ?? '').join(' ')}`.toLowerCase();
      return words.every((word) => text.includes(word));
    }),
  })).filter(({ commands }) => commands.length > 0);
}

/** Every keyboard shortcut in groups, from the table that the keyboard uses; can be searched and printed. */
export function KeySheet({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  const [search, setSearch] = useState('');
  const groups = matchingGroups(search);
  return (
    <Dialog.Root
      open={isOpen}
      onOpenChange={(e) => !e.open && onClose()}
      onExitComplete={() => setSearch('')}
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
              <Box display="flex" gap="8px" marginTop="8px" className="no-print">
                <Input
                  aria-label={WORDS.searchShortcuts}
                  placeholder={WORDS.searchShortcuts}
                  value={search}
                  maxLength={60}
                  flex="1"
                  onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}
                  onChange={(e) => setSearch(e.target.value)}
                />
                <Button variant="soft" onClick={() => window.print()}>
                  <Printer size={15} />
                  {WORDS.print}
                </Button>
              </Box>
            </Dialog.Header>
            {/* Longer than a small window: reached by Tab, so that the arrow keys scroll it. */}
            <Dialog.Body tabIndex={0}>
              {groups.map(({ title, commands }) => (
                <section key={title} aria-label={title}>
                  <h3>{title}</h3>
                  <dl>
                    {commands.map(({ keys, label }) => (
                      <div key={label}>
                        <dt>{label}</dt>
                        <dd>{keys[0] && <Keys of={keys[0]} />}</dd>
                      </div>
                    ))}
                  </dl>
                </section>
              ))}
              {groups.length === 0 && <p className="muted">{WORDS.noShortcuts}</p>}
            </Dialog.Body>
            <Dialog.CloseTrigger asChild>
              <CloseButton className="no-print" aria-label={WORDS.closeTheKeys} />
            </Dialog.CloseTrigger>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
