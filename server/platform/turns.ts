import { Cancelled } from './errors';

/** Lets whoever waits for the process have its turn: messages, timers, answers. */
export const turn = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

/** Lets others have their turn, among them whoever calls this off. @throws Cancelled. */
export async function turnUnless(signal: AbortSignal | undefined): Promise<void> {
  await turn();
  if (signal?.aborted) throw new Cancelled();
}
