import { describe, expect, it } from '@jest/globals';
import { encodeWav } from './wav';

describe('WAV files', () => {
  it('hold both channels as 24-bit samples, clipped at full level', () => {
    const bytes = encodeWav([Float32Array.of(0, 1, -1, 2), Float32Array.of(0.5, 0, 0, -3)], 48_000);
    const view = new DataView(bytes.buffer);
    const word = (at: number) => String.fromCharCode(...bytes.subarray(at, at + 4));
    expect([word(0), word(8), word(12), word(36)]).toEqual(['RIFF', 'WAVE', 'fmt ', 'data']);
    expect([view.getUint32(4, true), view.getUint32(40, true)]).toEqual([bytes.length - 8, 24]);
    expect([view.getUint16(22, true), view.getUint32(24, true), view.getUint16(34, true)]).toEqual([2, 48_000, 24]);
    const sample = (i: number) =>
      ((bytes[44 + i * 3]! | (bytes[45 + i * 3]! << 8) | (bytes[46 + i * 3]! << 16)) << 8) >> 8;
    const full = 0x7f_ffff;
    expect(Array.from({ length: 8 }, (_, i) => sample(i))).toEqual([
      0,
      Math.round(full / 2),
      full,
      0,
      -full,
      0,
      full,
      -full,
    ]);
  });
});
