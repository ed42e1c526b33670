import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';

/**
 * A collector of young objects, a tenth of a millisecond. Frames that are read from a canvas lie outside the engine's own
 * memory: eight megabytes a frame make it look through all it has ten times a second, beside the painting, to find two
 * objects; and until it has, memory is not used again, and a fresh page costs as much as what is written on it.
 * What it frees is given back in the next turn of the event loop.
 */
export function youngCollector(): () => void {
  setFlagsFromString('--expose-gc');
  const collect = runInNewContext('gc') as (options: { type: 'minor' }) => void; // as V8 says
  return () => collect({ type: 'minor' });
}
