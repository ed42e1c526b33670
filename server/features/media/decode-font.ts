import { unzlibSync } from 'fflate';

/** The most a font may have unpacked: the largest families for Chinese, Japanese and Korean have about 25 MB. */
const MAX_FONT_BYTES = 60_000_000;

export type FontContainer = 'sfnt' | 'woff' | 'woff2' | 'collection';

const CONTAINERS: Readonly<Record<string, FontContainer>> = {
  '\0\x01\0\0': 'sfnt',
  OTTO: 'sfnt',
  true: 'sfnt',
  wOFF: 'woff',
  wOF2: 'woff2',
  ttcf: 'collection',
};

/** What kind of font file this begins like; null for something else. @param head - its first four bytes at least. */
export function fontContainer(head: Uint8Array): FontContainer | null {
  return CONTAINERS[String.fromCharCode(...head.subarray(0, 4))] ?? null;
}

/**
 * Unpacks a WOFF file (W3C WOFF File Format 1.0): a 44-byte header, 20 bytes of directory a table, tables deflated one
 * by one.
 * @throws RangeError if it is cut off or lies about its sizes.
 */
export function unpackWoff(bytes: Uint8Array): Uint8Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const count = view.getUint16(12);
  const entries = Array.from({ length: count }, (_, i) => {
    const [tag, offset, packed, length, checksum] = [0, 4, 8, 12, 16].map((k) => view.getUint32(44 + i * 20 + k)) as [
      number,
      number,
      number,
      number,
      number,
    ]; // five are read
    return { tag, offset, packed, length, checksum };
  });
  const padded = (length: number) => (length + 3) & ~3;
  // Before anything is unpacked: what the directory says it comes to.
  const size = 12 + count * 16 + entries.reduce((sum, e) => sum + padded(e.length), 0);
  if (size > MAX_FONT_BYTES) throw new RangeError('the font is too large');
  const tables = entries.map(({ tag, offset, packed, length, checksum }) => {
    if (offset + packed > bytes.length) throw new RangeError('a table lies outside the file');
    const data = bytes.subarray(offset, offset + packed);
    const whole = packed < length ? unzlibSync(data, { out: new Uint8Array(length) }) : data;
    if (whole.length !== length) throw new RangeError('a table has another length than it says');
    return { tag, checksum, whole };
  });
  const out = new Uint8Array(size);
  const to = new DataView(out.buffer);
  const log = Math.floor(Math.log2(Math.max(1, count)));
  to.setUint32(0, view.getUint32(4));
  to.setUint16(4, count);
  to.setUint16(6, 16 * 2 ** log);
  to.setUint16(8, log);
  to.setUint16(10, 16 * (count - 2 ** log));
  let at = 12 + count * 16;
  tables.forEach(({ tag, checksum, whole }, i) => {
    [tag, checksum, at, whole.length].forEach((value, k) => to.setUint32(12 + i * 16 + k * 4, value));
    out.set(whole, at);
    at += padded(whole.length);
  });
  return out;
}

/** The sfnt of a font file of any container. @throws an error if it is damaged, too large, or a collection. */
export async function decodeFont(bytes: Uint8Array): Promise<Uint8Array> {
  switch (fontContainer(bytes)) {
    case 'sfnt':
      return bytes;
    case 'woff':
      return unpackWoff(bytes);
    case 'woff2': {
      // Both containers say their unpacked size at byte 16, so that one that explodes is not unpacked.
      if (new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength).getUint32(16) > MAX_FONT_BYTES)
        throw new RangeError('the font is too large');
      const { decompress } = await import('wawoff2');
      return (await decompress(bytes)).slice();
    }
    case 'collection':
      throw new RangeError('a collection holds several fonts');
    case null:
      throw new RangeError('not a font');
  }
}
