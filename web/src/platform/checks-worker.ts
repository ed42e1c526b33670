import type { FromChecks, ToChecks } from './checks-protocol';
import { queueUntilLoaded } from './queue-until-loaded';

/** Entry of the worker that looks for mistakes. Number 0 is no piece of work: the failure is everybody's. */
queueUntilLoaded<ToChecks>(
  () => import('./checks-running'),
  (message) => self.postMessage({ type: 'failed', id: 0, message } satisfies FromChecks),
);
