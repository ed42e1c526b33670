import { open } from 'node:fs/promises';

/** Bytes by which a kind of file is known. */
const SNIFF_BYTES = 4100;

/** Reads the first {@link SNIFF_BYTES} of a file. */
export async function readHead(file: string): Promise<Uint8Array> {
  const handle = await open(file);
  try {
    const { buffer, bytesRead } = await handle.read(new Uint8Array(SNIFF_BYTES), 0, SNIFF_BYTES, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await handle.close();
  }
}
