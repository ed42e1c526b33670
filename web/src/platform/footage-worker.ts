import type { FromFootage, ToFootage } from './footage-protocol';
import { queueUntilLoaded } from './queue-until-loaded';

/** Entry of the worker that looks at footage. */
queueUntilLoaded<ToFootage>(
  () => import('./footage-looking'),
  (message) => self.postMessage({ type: 'failed', message } satisfies FromFootage),
);
