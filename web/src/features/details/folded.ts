import { create } from 'zustand';
import { SECTION_IDS } from './sections';
import type { SectionId } from './sections';

const KEY = 'estrella-folded-details';

function stored(): SectionId[] {
  try {
    const ids: unknown = JSON.parse(localStorage.getItem(KEY) ?? '[]');
    return Array.isArray(ids) ? SECTION_IDS.filter((id) => ids.includes(id)) : [];
  } catch {
    // Without storage, or with something else in it, all are open.
    return [];
  }
}

const useFoldedStore = create<{ readonly folded: readonly SectionId[] }>(() => ({ folded: stored() }));

/** Whether a section of the details is folded; remembered in this browser for all pieces. */
export const useFolded = (id: SectionId): boolean => useFoldedStore((s) => s.folded.includes(id));

export function setFolded(id: SectionId, isFolded: boolean): void {
  const { folded } = useFoldedStore.getState();
  const next = SECTION_IDS.filter((one) => (one === id ? isFolded : folded.includes(one)));
  useFoldedStore.setState({ folded: next });
  try {
    localStorage.setItem(KEY, JSON.stringify(next));
  } catch {
    // It is remembered until the page is left.
  }
}
