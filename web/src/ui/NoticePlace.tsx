import { Suspense, lazy } from 'react';
import type { Notice } from './Notices';

// Fetched with the first notice.
const Notices = lazy(() => import('./Notices'));

/** Where notices appear on a page. */
export function NoticePlace({ notice, onClose }: { notice: Notice | null; onClose: () => void }) {
  return <Suspense>{notice && <Notices notice={notice} onClose={onClose} />}</Suspense>;
}
