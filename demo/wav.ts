/**
 * A 16-bit PCM WAV file. @param channels - planar samples of equal length in [-1, 1]; what is beyond is clipped.
 */
export function encodeWav(channels: readonly Float32Array[], rate: number): Buffer {
  const frames = channels[0]?.length ?? 0;
  const block = channels.length * 2;
  const out = Buffer.alloc(44 + frames * block);
  out.write('RIFF', 0);
  out.writeUInt32LE(36 + frames * block, 4);
  out.write('WAVEfmt ', 8);
  out.writeUInt32LE(16, 16);
  out.writeUInt16LE(1, 20);
  out.writeUInt16LE(channels.length, 22);
  out.writeUInt32LE(rate, 24);
  out.writeUInt32LE(rate * block, 28);
  out.writeUInt16LE(block, 32);
  out.writeUInt16LE(16, 34);
  out.write('data', 36);
  out.writeUInt32LE(frames * block, 40);
  channels.forEach((samples, channel) => {
    for (let i = 0; i < frames; i++)
      out.writeInt16LE(Math.round(Math.max(-1, Math.min(1, samples[i]!)) * 32767), 44 + i * block + channel * 2);
  });
  return out;
}
