import { PARAMETER_NAMES, scoreReading } from '@core/audio';
import { fitNet, scaleOf } from './fit-net';
import type { Take } from './fit-net';
import type { SongRows } from './meter-rows';

const WIDTH = PARAMETER_NAMES.length;
const START = PARAMETER_NAMES.indexOf('startsOnDown');

/** A song whose readings have these values in two columns (and in that of its start); the last one is right. */
function song(readings: readonly (readonly number[])[], columns = [0, 1]): SongRows {
  const rows = new Float32Array(readings.length * WIDTH);
  readings.forEach((values, i) => columns.forEach((column, c) => (rows[i * WIDTH + column] = values[c]!)));
  const right = Float32Array.from(readings, (_, i) => +(i === readings.length - 1));
  return { name: 'a', family: 'kit: made up', rows, beatF: right, downF: right };
}
const take = (of: SongRows, hasStart = true): Take => ({ song: of, hasStart, rewards: of.beatF, weight: 1 });

function chosen(of: SongRows, nets: Parameters<typeof scoreReading>[1]): number {
  const scores = Array.from(of.beatF, (_, i) =>
    scoreReading(Float64Array.from(of.rows.subarray(i * WIDTH, (i + 1) * WIDTH)), nets),
  );
  return scores.indexOf(Math.max(...scores));
}

// Right is what has both or neither: no weighted sum says so.
const both = song([
  [1, 0],
  [0, 1],
  [1, 1],
]);
const neither = song([
  [1, 0],
  [0, 1],
  [0, 0],
]);

describe('the fit of the nets that choose a reading', () => {
  it('learns with hidden units what a weighted sum cannot', () => {
    const songs = [both, neither];
    const scale = scaleOf(songs);
    const takes = songs.map((s) => take(s));
    const plain = fitNet(takes, scale, { units: 0, seed: 1 });
    const net = fitNet(takes, scale, { units: 4, seed: 1 });
    expect(songs.map((s) => chosen(s, [net]))).toEqual([2, 2]);
    expect(songs.map((s) => chosen(s, [plain]))).not.toEqual([2, 2]);
  });

  it('gives the same numbers each time, and others from another start', () => {
    const scale = scaleOf([both]);
    const of = (seed: number) => fitNet([take(both)], scale, { units: 2, seed });
    expect(of(3)).toEqual(of(3));
    expect(of(3)).not.toEqual(of(4));
  });

  it('learns nothing from where a song starts where that is not known', () => {
    const started = song([[0], [1]], [START]);
    const scale = scaleOf([started]);
    const weightOf = (hasStart: boolean) =>
      fitNet([take(started, hasStart)], scale, { units: 0, seed: 1 }).linear[START];
    expect(weightOf(true)).toBeGreaterThan(0.1);
    expect(weightOf(false)).toBeCloseTo(0, 6);
  });
});
