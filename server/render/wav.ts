const HEADER = 44;
const CHANNELS = 2;
const BYTES = 3;
/** Largest 24-bit sample. */
const FULL = 0x7f_ffff;

/**
 * Two channels as a WAV file of 24-bit PCM; what is louder than full level is clipped.
 * @see Multimedia Programming Interface and Data Specifications 1.0 (IBM and Microsoft, 1991), RIFF WAVE.
 */
export function encodeWav([left, right]: readonly [Float32Array, Float32Array], rate: number): Uint8Array {
  const data = left.length * CHANNELS * BYTES;
  const bytes = new Uint8Array(HEADER + data + (data % 2));
  const view = new DataView(bytes.buffer);
  const text = (at: number, word: string) => [...word].forEach((c, i) => view.setUint8(at + i, c.charCodeAt(0)));
  text(0, 'RIFF');
  view.setUint32(4, bytes.length - 8, true);
  text(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, CHANNELS, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, rate * CHANNELS * BYTES, true);
  view.setUint16(32, CHANNELS * BYTES, true);
  view.setUint16(34, BYTES * 8, true);
  text(36, 'data');
  view.setUint32(40, data, true);
  let at = HEADER;
  for (let i = 0; i < left.length; i++)
    for (const channel of [left, right]) {
      const sample = Math.round(Math.max(-1, Math.min(1, channel[i] ?? 0)) * FULL);
      bytes[at++] = sample & 0xff;
      bytes[at++] = (sample >> 8) & 0xff;
      bytes[at++] = (sample >> 16) & 0xff;
    }
  return bytes;
}
