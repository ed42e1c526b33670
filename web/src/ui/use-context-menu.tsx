import { Suspense, lazy, useState } from 'react';
import type { MouseEvent, ReactNode } from 'react';
import type { MenuContent, OpenMenu } from './ContextMenu';

// Fetched when it is first asked for.
const ContextMenu = lazy(async () => ({ default: (await import('./ContextMenu')).ContextMenu }));

/** At the pointer, or at the element if it was asked for by key. */
function placeOf(event: MouseEvent, target: Element): OpenMenu['at'] {
  if (event.clientX !== 0 || event.clientY !== 0) return { x: event.clientX, y: event.clientY };
  const box = target.getBoundingClientRect();
  return { x: box.left + 8, y: box.bottom };
}

/**
 * A menu at the pointer. Fields keep the browser's own, which pastes and spells.
 * @param menuFor - the menu for an element; null leaves it to the browser.
 * @returns The menu, while it is open, and the handler for whatever holds the elements.
 */
export function useContextMenu(
  menuFor: (target: Element) => MenuContent | null,
): [ReactNode, (event: MouseEvent) => void] {
  const [menu, setMenu] = useState<OpenMenu | null>(null);
  const onContextMenu = (event: MouseEvent) => {
    const { target } = event;
    if (!(target instanceof Element) || target.closest('input, textarea, [contenteditable]')) return;
    const content = menuFor(target);
    if (!content) return;
    event.preventDefault();
    setMenu({ ...content, at: placeOf(event, target) });
  };
  return [
    menu && (
      <Suspense key={`${menu.at.x},${menu.at.y},${menu.label}`}>
        <ContextMenu menu={menu} onClose={() => setMenu(null)} />
      </Suspense>
    ),
    onContextMenu,
  ];
}
