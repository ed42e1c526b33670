import * as z from 'zod';
import type { SaveAnswer, SaveRequest } from './saver';
import { WORDS } from './words';

/** The server's side of saving, as the browser reaches it. */
const savedSchema = z.object({ revision: z.number().int() });
const errorSchema = z.object({ error: z.object({ code: z.string(), message: z.string() }) });
const AWAY = WORDS.theServerDoesNot;

/**
 * What a status and a body mean for a save. Anything that isn't understood counts as no answer: the save may have
 * arrived.
 */
export function readAnswer(status: number, body: unknown): SaveAnswer {
  if (status === 200) {
    const saved = savedSchema.safeParse(body);
    return saved.success ? { kind: 'saved', revision: saved.data.revision } : { kind: 'lost', message: AWAY };
  }
  const error = errorSchema.safeParse(body);
  const message = error.success ? error.data.error.message : AWAY;
  if (status === 409) return { kind: 'conflict', message };
  if (status === 404 && error.success) return { kind: 'gone', message };
  // Told to wait, or asked who we are: the same save can be taken later.
  if (!error.success || status === 401 || status === 408 || status === 429 || status >= 500)
    return { kind: 'lost', message, isDiskFull: status === 507 };
  return { kind: 'refused', message };
}

type Fetch = (url: string, init: RequestInit) => Promise<Response>;

/**
 * Browsers give a request that outlives its page at most 64 KiB (Fetch Standard, section 4.7); larger ones are sent
 * plainly.
 */
const KEEPALIVE_BYTES = 60_000;
/** A save that takes longer than this has lost its answer. */
const ANSWER_WITHIN_MS = 30_000;

export const createSend =
  (fetch: Fetch) =>
  async (request: SaveRequest, isLeaving: boolean): Promise<SaveAnswer> => {
    const body = JSON.stringify(request);
    try {
      const response = await fetch(`/api/pieces/${encodeURIComponent(request.piece.id)}`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body,
        keepalive: isLeaving && body.length < KEEPALIVE_BYTES,
        signal: AbortSignal.timeout(ANSWER_WITHIN_MS),
      });
      return readAnswer(response.status, await response.json().catch(() => null));
    } catch {
      return { kind: 'lost', message: AWAY };
    }
  };
