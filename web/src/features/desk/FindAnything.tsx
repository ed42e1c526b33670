import { Dialog, Input, Portal } from '@chakra-ui/react';
import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { Keys } from '../../ui/Keys';
import { useRunOnExit } from '../../ui/use-run-on-exit';
import { createFinder, findablePieces, findables } from './findable';
import type { Findable } from './findable';
import { WORDS } from './words';

interface Props {
  readonly isOpen: boolean;
  readonly onClose: () => void;
}

/** Every command by name, and every layer, marker, section and piece to go to. */
export function FindAnything({ isOpen, onClose }: Props) {
  const [choose, runChosen] = useRunOnExit();
  return (
    <Dialog.Root
      open={isOpen}
      onOpenChange={(e) => !e.open && onClose()}
      onExitComplete={runChosen}
      lazyMount
      unmountOnExit
      placement="top"
    >
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content className="find" aria-label={WORDS.findAnything}>
            <Search
              onChoose={(thing) => {
                choose(thing);
                onClose();
              }}
            />
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}

function Search({ onChoose }: { onChoose: (thing: Findable) => void }) {
  const navigate = useNavigate();
  const [asked, setAsked] = useState('');
  const [at, setAt] = useState(0);
  const [pieces, setPieces] = useState<readonly Findable[]>([]);
  useEffect(() => {
    // Without the server there is still all that is on the desk.
    findablePieces(navigate).then(setPieces, () => {});
  }, [navigate]);
  const find = useMemo(() => createFinder([...findables(), ...pieces]), [pieces]);
  const shown = useMemo(() => find(asked), [find, asked]);
  const chosen = Math.min(at, shown.length - 1);
  const run = (thing: Findable | undefined) => {
    if (thing) onChoose(thing);
  };
  return (
    <>
      <Input
        autoFocus
        role="combobox"
        aria-label={WORDS.findAnything}
        aria-expanded="true"
        aria-controls="found"
        aria-activedescendant={shown[chosen] ? `found-${chosen}` : undefined}
        placeholder={WORDS.aCommandALayer}
        value={asked}
        onChange={(e) => {
          setAsked(e.target.value);
          setAt(0);
        }}
        onKeyDown={(e) => {
          const by = { ArrowDown: 1, ArrowUp: -1 }[e.key];
          if (by !== undefined) {
            e.preventDefault();
            setAt(Math.max(0, Math.min(shown.length - 1, chosen + by)));
          } else if (e.key === 'Enter') run(shown[chosen]);
        }}
      />
      <ul id="found" role="listbox" aria-label={WORDS.found}>
        {shown.map((thing, i) => (
          <li
            key={thing.id}
            id={`found-${i}`}
            role="option"
            aria-selected={i === chosen}
            ref={(element) => {
              if (i === chosen) element?.scrollIntoView({ block: 'nearest' });
            }}
            onPointerMove={() => setAt(i)}
            onClick={() => run(thing)}
          >
            <span>{thing.label}</span>
            <span className="muted">{thing.kind}</span>
            {thing.key && <Keys of={thing.key} />}
          </li>
        ))}
        {shown.length === 0 && <li className="muted">{WORDS.nothingIsCalledThat}</li>}
      </ul>
    </>
  );
}
