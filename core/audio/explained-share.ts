/** Onsets this near to a tatum, in frames, are on it. */
const ON_TATUM = 2;
/** Onsets weaker than this don't count. They have unit deviation. */
const NOTHING = 0.3;
/** What chance leaves is taken to be at least this, so that a grid so fine that everything lies on it tells little. */
const LEAST_LEFT = 0.2;

/**
 * How much of a song's onsets lies on the tatums of a grid: 1 for all of them, 0 for as many as by chance, less than 0 for
 * fewer. The averages on the tatums don't say what lies beside them: pairs that are read as triplets, or three quarters of
 * a beat that are taken for the beat, leave every other note unexplained.
 * @param frames - of the tatums, ascending.
 * @param onsets - normalised onset strength, one value a frame.
 */
export function explainedShare(frames: Float64Array, onsets: Float32Array): number {
  const isOn = new Uint8Array(onsets.length);
  for (const frame of frames) {
    const centre = Math.round(frame);
    isOn.fill(1, Math.max(0, centre - ON_TATUM), Math.max(0, centre + ON_TATUM + 1));
  }
  let [on, all, covered] = [0, 0, 0];
  for (let i = 1; i + 1 < onsets.length; i++) {
    covered += isOn[i]!;
    if (onsets[i]! < NOTHING || onsets[i]! < onsets[i - 1]! || onsets[i]! <= onsets[i + 1]!) continue;
    const strength = Math.sqrt(onsets[i]!);
    all += strength;
    if (isOn[i]) on += strength;
  }
  if (all === 0) return 0;
  const chance = covered / onsets.length;
  return Math.max(-1, (on / all - chance) / Math.max(LEAST_LEFT, 1 - chance));
}
