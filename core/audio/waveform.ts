/** Peak magnitude and RMS of each 1/rate s, scaled to 0…255. */
export function waveformPeaks(
  samples: Float32Array,
  sampleRate: number,
  rate: number,
): { peaks: number[]; rms: number[] } {
  const count = Math.ceil((samples.length * rate) / sampleRate);
  const peaks: number[] = [];
  const rms: number[] = [];
  for (let i = 0; i < count; i++) {
    const a = Math.floor((i * sampleRate) / rate);
    const b = Math.min(samples.length, Math.floor(((i + 1) * sampleRate) / rate));
    let peak = 0;
    let squares = 0;
    for (let k = a; k < b; k++) {
      const v = Math.abs(samples[k]!);
      if (v > peak) peak = v;
      squares += v * v;
    }
    peaks.push(Math.round(Math.min(1, peak) * 255));
    rms.push(Math.round(Math.min(1, Math.sqrt(squares / Math.max(1, b - a))) * 255));
  }
  return { peaks, rms };
}
