import type { ReactNode } from 'react';

/** A line of a panel: what it is, and the fields for it. */
export function Row({ name, children }: { name: string; children: ReactNode }) {
  return (
    <div className="prop">
      <span />
      <span className="name">{name}</span>
      <span className="fields">{children}</span>
    </div>
  );
}
