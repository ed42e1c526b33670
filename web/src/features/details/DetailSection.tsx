import { ChevronDown, ChevronRight } from 'lucide-react';
import type { ReactNode } from 'react';
import { Button } from '../../ui/Button';
import { setFolded, useFolded } from './folded';
import type { SectionId } from './sections';

/** A part of the details under a heading that folds it; while something is searched for, all are open. */
export function DetailSection({
  id,
  title,
  isSearching,
  children,
}: {
  id: SectionId;
  title: string;
  isSearching: boolean;
  children: ReactNode;
}) {
  const isFolded = useFolded(id) && !isSearching;
  return (
    <section className="detail-section" aria-label={title}>
      <Button
        variant="quiet"
        className="heading"
        aria-expanded={!isFolded}
        disabled={isSearching}
        onClick={() => setFolded(id, !isFolded)}
      >
        {isFolded ? <ChevronRight size={14} /> : <ChevronDown size={14} />}
        {title}
      </Button>
      {!isFolded && children}
    </section>
  );
}
