import { createReadStream } from 'node:fs';
import { DetailedError, Upload } from 'tus-js-client';
import { AppError, Cancelled, TryLater } from '../platform/errors';
import { refusal } from './channel';
import type { Channel } from './channel';

/** What is sent in one request: as much is lost at most when it breaks off without the channel having kept any. */
const CHUNK_BYTES = 4 * 1024 * 1024;

export interface FileUpload {
  readonly file: string;
  readonly bytes: number;
  /** Where an upload was begun before; null for none. */
  readonly begun: string | null;
  /** Told where the upload is, and when it is lost. */
  readonly onBegun: (address: string | null) => void;
  /** 0 to 1. */
  readonly onProgress: (share: number) => void;
  readonly signal: AbortSignal;
}

/** The channel has lost what was sent so far: another upload is begun. */
const isLost = (status: number | undefined): boolean => status === 404 || status === 410 || status === 409;

/**
 * Uploads a file resumably (tus 1.0.0, https://tus.io/protocols/resumable-upload), going on where it broke off before.
 * @returns the id of the upload there. @throws AppError SEND_REFUSED, TryLater, Cancelled.
 */
export function uploadFile(channel: Channel, what: FileUpload): Promise<string> {
  const { file, bytes, onBegun, onProgress, signal } = what;
  // What the account is known by goes along: to the channel's own address, and nowhere else.
  const isOwn = (address: string): boolean =>
    URL.canParse(address) && new URL(address).origin === new URL(channel.address).origin;
  const begun = what.begun !== null && isOwn(what.begun) ? what.begun : null;
  return new Promise((resolve, reject) => {
    const upload = new Upload(createReadStream(file), {
      endpoint: `${channel.address}/uploads`,
      uploadUrl: begun,
      uploadSize: bytes,
      chunkSize: CHUNK_BYTES,
      retryDelays: null, // waits are the job's, which outlive this process
      storeFingerprintForResuming: false,
      headers: { authorization: `Bearer ${channel.token}` },
      onUploadUrlAvailable: () => {
        if (!upload.url) return;
        if (isOwn(upload.url)) return onBegun(upload.url);
        void upload.abort().catch(() => {});
        finish(() => reject(new AppError('SEND_REFUSED', 'it gave an address elsewhere for the upload')));
      },
      onProgress: (sent, total) => onProgress(total ? sent / total : 0),
      onSuccess: () => finish(() => resolve(idOf(upload.url ?? ''))),
      onError: (error) =>
        finish(() => {
          if (signal.aborted) return reject(new Cancelled());
          const answer = error instanceof DetailedError ? error.originalResponse : null;
          const status = answer?.getStatus();
          if (upload.url && isLost(status)) {
            onBegun(null);
            return reject(new TryLater('what was sent so far was lost there', null, { cause: error }));
          }
          if (status === undefined || status === null)
            return reject(new TryLater('the connection broke off', null, { cause: error }));
          reject(refusal(status, answer?.getHeader('retry-after') ?? null, answer?.getBody() ?? ''));
        }),
    });
    const stop = (): void => {
      void upload.abort().catch(() => {});
      reject(new Cancelled());
    };
    const finish = (end: () => void): void => {
      signal.removeEventListener('abort', stop);
      end();
    };
    if (signal.aborted) return stop();
    signal.addEventListener('abort', stop, { once: true });
    upload.start();
  });
}

/** The last part of the address of an upload. @throws AppError if it has none. */
function idOf(address: string): string {
  const id = address.split('/').pop();
  if (!id) throw new AppError('SEND_REFUSED', 'it gave no address for the upload');
  return id;
}
