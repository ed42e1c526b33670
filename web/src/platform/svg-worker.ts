import { queueUntilLoaded } from './queue-until-loaded';
import type { FromSvg, ToSvg } from './svg-protocol';

/** Entry of the worker that reads SVG files. */
queueUntilLoaded<ToSvg>(
  () => import('./svg-reading'),
  (message) => self.postMessage({ type: 'failed', message } satisfies FromSvg),
);
