import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';

/** SHA-256 of a file, in hexadecimal digits. */
export async function fileDigest(file: string, signal?: AbortSignal): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(file), hash, signal ? { signal } : {});
  return hash.digest('hex');
}

/** SHA-256 of a text, in hexadecimal digits. */
export const textDigest = (text: string): string => createHash('sha256').update(text).digest('hex');
