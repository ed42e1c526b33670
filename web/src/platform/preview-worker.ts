import type { FromPreview, ToPreview } from './preview-protocol';
import { queueUntilLoaded } from './queue-until-loaded';

/** Entry of the painting worker. */
queueUntilLoaded<ToPreview>(
  () => import('./preview-painting'),
  (message) => self.postMessage({ type: 'failed', message } satisfies FromPreview),
);
