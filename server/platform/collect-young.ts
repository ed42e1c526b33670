import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';

const HEAP_GROWTH_PERCENT = 400;

/**
 * A collector of young objects, a tenth of a millisecond. Frames that are read from a canvas lie outside the engine's own
 * memory: eight megabytes a frame make it look through all it has ten times a second, beside the painting, to find two
 * objects; and until it has, memory is not used again, and a fresh page costs as much as what is written on it.
 * What it frees is given back in the next turn of the event loop.
 *
 * The rest it looks through when its own memory has grown fivefold, in every thread of the process: frames count as
 * growth, so that otherwise it does so every fifth frame, at a tenth of the whole work of an export.
 */
export function youngCollector(): () => void {
  setFlagsFromString('--expose-gc');
  setFlagsFromString(`--heap-growing-percent=${HEAP_GROWTH_PERCENT}`);
  const collect = runInNewContext('gc') as (options: { type: 'minor' }) => void; // as V8 says
  return () => collect({ type: 'minor' });
}
