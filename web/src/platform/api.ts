import { hc } from 'hono/client';
import type { AppType } from '../../../server/http/app';
import { WORDS } from './words';

/** The server's routes with their types; nothing is written down twice. */
export const api = hc<AppType>('/').api;

/** What the server said, or that it did not answer at all. */
export class ApiError extends Error {
  override readonly name = 'ApiError';
  constructor(
    readonly code: string,
    message: string,
  ) {
    super(message);
  }
  /** True if trying again later can help: nobody answered, or the database is away. */
  get isAway(): boolean {
    return this.code === 'AWAY' || this.code === 'DATABASE_AWAY';
  }
}

/** What the server said went wrong, or what else to say. */
export const saidBy = (error: unknown, otherwise: string): string =>
  error instanceof ApiError ? error.message : otherwise;

async function failure(response: Response): Promise<ApiError> {
  const body: unknown = await response.json().catch(() => null);
  if (typeof body === 'object' && body !== null && 'error' in body) {
    const { code, message } = body.error as { code: string; message: string }; // the one shape of http/app.ts
    return new ApiError(code, message);
  }
  return new ApiError('AWAY', WORDS.theServerDoesNot);
}

interface TypedResponse<T> {
  ok: boolean;
  json(): Promise<T>;
}

/** Awaits a call of {@link api}. @throws ApiError. */
export async function call<T>(request: Promise<TypedResponse<T>>): Promise<T> {
  let response: TypedResponse<T>;
  try {
    response = await request;
  } catch {
    throw new ApiError('AWAY', WORDS.theServerDoesNotAnswer);
  }
  if (!response.ok) throw await failure(response as unknown as Response); // hc answers with a Response
  return response.json();
}

/** Sends a file with upload progress (fetch has none). Aborting rejects with an AbortError. */
export function upload<T>(
  url: string,
  file: Blob,
  onProgress: (share: number) => void,
  signal?: AbortSignal,
): Promise<T> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', url);
    request.responseType = 'text';
    request.upload.onprogress = (event) => event.lengthComputable && onProgress(event.loaded / event.total);
    request.onload = () => {
      if (request.status >= 200 && request.status < 300)
        resolve(JSON.parse(request.responseText) as T); // typed by the caller from the route
      else void failure(new Response(request.responseText, { status: request.status })).then(reject);
    };
    request.onerror = () => reject(new ApiError('AWAY', WORDS.theServerDoesNotAnswerThe));
    request.onabort = () => reject(new DOMException('cancelled', 'AbortError'));
    signal?.addEventListener('abort', () => request.abort(), { once: true });
    request.send(file);
  });
}
