import { Menu, Portal } from '@chakra-ui/react';
import { Keys } from './Keys';
import { useRunOnExit } from './use-run-on-exit';

export interface MenuEntry {
  readonly label: string;
  /** The key that does the same. */
  readonly key?: string | undefined;
  readonly run: () => void;
}

export interface MenuContent {
  /** What it is about, for people who do not see where it stands. */
  readonly label: string;
  /** Entries that belong together stand together. */
  readonly groups: readonly (readonly MenuEntry[])[];
}

export interface OpenMenu extends MenuContent {
  /** Pixels of the page. */
  readonly at: { readonly x: number; readonly y: number };
}

/** What can be done with something, where the pointer is. Runs what is chosen once the focus is back on the page. */
export function ContextMenu({ menu, onClose }: { menu: OpenMenu; onClose: () => void }) {
  const [choose, runChosen] = useRunOnExit();
  const entries = menu.groups.flat();
  return (
    <Menu.Root
      defaultOpen
      size={'fit' as never} // of our own recipe (theme.ts)
      variant={'sheet' as never}
      positioning={{ placement: 'bottom-start', getAnchorRect: () => ({ ...menu.at, width: 0, height: 0 }) }}
      onSelect={({ value }) => choose(entries[Number(value)] ?? null)}
      onExitComplete={() => {
        onClose();
        runChosen();
      }}
    >
      <Portal>
        <Menu.Positioner>
          <Menu.Content aria-label={menu.label} onContextMenu={(e) => e.preventDefault()}>
            {menu.groups.map((group, i) => (
              <Menu.ItemGroup key={i}>
                {group.map((entry) => (
                  <Menu.Item key={entry.label} value={String(entries.indexOf(entry))}>
                    {entry.label} {entry.key && <Keys of={entry.key} />}
                  </Menu.Item>
                ))}
              </Menu.ItemGroup>
            ))}
          </Menu.Content>
        </Menu.Positioner>
      </Portal>
    </Menu.Root>
  );
}
