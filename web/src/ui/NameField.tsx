import { Suspense, lazy } from 'react';
import type { ComponentProps } from 'react';

const NameEdit = lazy(() => import('./NameEdit'));

/** A name that is being changed; what it needs is fetched with the first one. */
export const NameField = (props: ComponentProps<typeof NameEdit>) => (
  <Suspense>
    <NameEdit {...props} />
  </Suspense>
);
