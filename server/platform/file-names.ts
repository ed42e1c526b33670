const encoder = new TextEncoder();

/** Longest name of a file that disks take, bytes, less room for a number and an extension. */
export const MAX_NAME_BYTES = 255 - 15;

/** The beginning of a text, in whole characters, that has at most so many bytes as UTF-8: what disks count. */
export function cutToBytes(text: string, most: number): string {
  if (encoder.encode(text).length <= most) return text;
  let [out, bytes] = ['', 0];
  for (const char of text) {
    bytes += encoder.encode(char).length;
    if (bytes > most) break;
    out += char;
  }
  return out;
}
