import { doubtfulStretches } from './doubtful';
import type { BeatGrid } from './beat-grid';

const grid = (confidence: number[], free: BeatGrid['free'] = []): BeatGrid => ({
  beats: confidence.map((_, i) => i / 2),
  origin: 0,
  meters: [{ fromBeat: -Infinity, beatsPerBar: 4 }],
  confidence,
  free,
});

describe('doubtful stretches', () => {
  it('are runs of beats that are less sure than not, to the next that is sure', () => {
    expect(doubtfulStretches(grid([0.9, 0.4, 0.3, 0.8, 0.9, 0.2, 0.9]))).toEqual([
      { start: 0.5, end: 1.5 },
      { start: 2.5, end: 3 },
    ]);
  });
  it('are none where all is sure, and none in free time', () => {
    expect(doubtfulStretches(grid([0.9, 0.5, 0.6]))).toEqual([]);
    expect(doubtfulStretches(grid([0.1, 0.1, 0.1, 0.9], [{ start: 0, end: 1 }]))).toEqual([{ start: 1, end: 1.5 }]);
  });
  it('end with the last beat but one: nothing is known of what comes behind', () => {
    expect(doubtfulStretches(grid([0.9, 0.1, 0.1]))).toEqual([{ start: 0.5, end: 1 }]);
  });
});
