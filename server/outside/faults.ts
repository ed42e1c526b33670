import * as z from 'zod';

/** What the stand-in does wrong on demand, as real places do now and then. */
export const FAULTS = {
  slow: 'takes in an upload so many bytes a second',
  drop: 'breaks the connection off after so many bytes of an upload',
  busy: 'answers 503 and asks to wait a second',
  forget: 'loses an upload that was begun',
  damage: 'keeps an upload with one byte changed',
  'post-and-fail': 'posts, and answers 500',
  'post-and-hang-up': 'posts, and breaks the connection off',
  'post-nothing': 'answers that it has posted, and has not',
  garbled: 'answers what is no JSON',
  shut: 'knows no account any more',
} as const satisfies Record<string, string>;
export type FaultKind = keyof typeof FAULTS;

export const faultSchema = z.object({
  kind: z.enum(Object.keys(FAULTS) as [FaultKind, ...FaultKind[]]), // keys of a literal object
  /** How often. */
  times: z.number().int().min(1).max(1000).default(1),
  /** Bytes, or bytes a second. */
  bytes: z.number().int().min(1).max(1e9).default(50_000),
});
export type Fault = z.infer<typeof faultSchema>;

export interface Faults {
  add(fault: Fault): void;
  clear(): void;
  /** Takes one of the kind, if there is one left. */
  take(kind: FaultKind): Fault | null;
}

export function createFaults(): Faults {
  let list: { fault: Fault; left: number }[] = [];
  return {
    add: (fault) => void list.push({ fault, left: fault.times }),
    clear: () => void (list = []),
    take(kind) {
      const found = list.find((one) => one.fault.kind === kind && one.left > 0);
      if (!found) return null;
      found.left--;
      return found.fault;
    },
  };
}

/** A body that comes slowly, or breaks off. */
export function hindered(
  body: ReadableStream<Uint8Array>,
  slow: Fault | null,
  drop: Fault | null,
): ReadableStream<Uint8Array> {
  let passed = 0;
  return body.pipeThrough(
    new TransformStream<Uint8Array, Uint8Array>({
      async transform(chunk, controller) {
        if (drop && passed + chunk.length > drop.bytes) {
          controller.enqueue(chunk.subarray(0, Math.max(0, drop.bytes - passed)));
          return controller.terminate(); // what came so far is kept
        }
        passed += chunk.length;
        if (slow) await new Promise((resolve) => setTimeout(resolve, (1000 * chunk.length) / slow.bytes));
        controller.enqueue(chunk);
      },
    }),
  );
}
