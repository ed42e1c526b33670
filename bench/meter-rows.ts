import { PARAMETER_NAMES, gridTimes, pulseGrids, readingParameters, readingsOf } from '@core/audio';
import { MATCH_WINDOW, matchBeats } from './match-beats';
import { familyOf, featuresOf } from './song-files';
import type { SongFile } from './song-files';

/** All readings of a song, and how right each is. */
export interface SongRows {
  readonly name: string;
  readonly family: string;
  /** [readings × parameters] */
  readonly rows: Float32Array;
  readonly beatF: Float32Array;
  /** Null where the notated bar cannot be heard. */
  readonly downF: Float32Array | null;
}

const WIDTH = PARAMETER_NAMES.length;
/** Seconds at the start that aren't scored, as in the kit. */
const SKIP = 5;

export async function rowsOf(file: SongFile): Promise<SongRows> {
  const { truth } = file;
  const features = await featuresOf(file);
  const end = truth.beats[truth.beats.length - 1]! + MATCH_WINDOW;
  const beats = truth.beats.filter((t) => t >= SKIP);
  const downbeats = truth.downbeats.filter((t) => t >= SKIP);
  const rows: Float64Array[] = [];
  const beatF: number[] = [];
  const downF: number[] = [];
  for (const facts of pulseGrids(features)) {
    const times = gridTimes(facts.grid);
    const every = (step: number, from: number) =>
      times.filter((t, i) => i % step === from && t >= SKIP - MATCH_WINDOW && t <= end);
    const known = new Map<string, number>();
    const f = (kind: string, truths: readonly number[], step: number, from: number): number => {
      const id = `${kind}:${step}:${from}`;
      let value = known.get(id);
      if (value === undefined) known.set(id, (value = matchBeats(truths, every(step, from)).f));
      return value;
    };
    for (const reading of readingsOf(facts)) {
      const { perBeat, meter, phase } = reading;
      beatF.push(f('beat', beats, perBeat, phase % perBeat));
      downF.push(truth.downbeatsTrusted ? f('bar', downbeats, perBeat * meter.beats, phase) : 0);
      rows.push(readingParameters(facts, reading));
    }
  }
  const packed = new Float32Array(rows.length * WIDTH);
  rows.forEach((row, i) => packed.set(row, i * WIDTH));
  return {
    name: truth.name,
    family: familyOf(file),
    rows: packed,
    beatF: Float32Array.from(beatF),
    downF: truth.downbeatsTrusted ? Float32Array.from(downF) : null,
  };
}
