import { Upload } from 'tus-js-client';
import type { MediaKindId, MediaRef } from '@core/piece';
import { ApiError, api, call, upload } from './api';
import { WORDS } from './words';

export interface Uploaded {
  readonly media: MediaRef;
  readonly state: string;
  readonly warning: string | null;
}

/** Files from this size on are sent resumably. */
const LARGE_BYTES = 16_000_000;
const CHUNK_BYTES = 8_000_000;
const RETRY_MS = [500, 1000, 3000, 8000, 15_000];

/** Sends a large file in chunks; a lost connection goes on where it broke off. Resolves with the id of the upload. */
function sendResumably(file: File, onProgress: (share: number) => void, signal: AbortSignal): Promise<string> {
  return new Promise((resolve, reject) => {
    const sending = new Upload(file, {
      endpoint: '/api/uploads',
      chunkSize: CHUNK_BYTES,
      retryDelays: RETRY_MS,
      storeFingerprintForResuming: false,
      metadata: { filename: file.name },
      onProgress: (sent, total) => onProgress(total > 0 ? sent / total : 0),
      onSuccess: () => resolve(new URL(sending.url ?? '', window.location.href).pathname.split('/').pop() ?? ''),
      onError: (error) => {
        const status = 'originalResponse' in error ? error.originalResponse?.getStatus() : undefined;
        reject(
          status === 413
            ? new ApiError('FILE_TOO_LARGE', WORDS.theFileIsToo(file.name))
            : new ApiError('AWAY', WORDS.theServerDoesNotAnswerThe),
        );
      },
    });
    signal.addEventListener(
      'abort',
      () => {
        void sending.abort(true);
        reject(new DOMException('cancelled', 'AbortError'));
      },
      { once: true },
    );
    sending.start();
  });
}

/**
 * Brings a file to the server. @param as - what it is to become: a film is either a song or footage.
 * @throws ApiError; an AbortError when it is called off.
 */
export async function uploadMedia(
  file: File,
  as: MediaKindId | 'any',
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<Uploaded> {
  if (file.size < LARGE_BYTES)
    return upload<Uploaded>(`/api/media?as=${as}&name=${encodeURIComponent(file.name)}`, file, onProgress, signal);
  const uploadId = await sendResumably(file, onProgress, signal);
  return call(api.media.uploaded.$post({ json: { uploadId, name: file.name.slice(0, 255), as } }));
}
