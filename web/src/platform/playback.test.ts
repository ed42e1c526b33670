import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { createMusic } from '@core/piece';
import type { Music } from '@core/piece';
import { playhead } from './clock';
import type { Moment } from '@core/time';

/** Playing on an audio clock that stands still until it is moved. */
interface Started {
  at: number;
  offset: number;
  length: number;
  stopped: boolean;
}
class FakeParam {
  value = 0;
  readonly points: [number, number][] = [];
  setValueAtTime(value: number, at: number) {
    this.points.push([at, value]);
  }
  linearRampToValueAtTime(value: number, at: number) {
    this.points.push([at, value]);
  }
  exponentialRampToValueAtTime(value: number, at: number) {
    this.points.push([at, value]);
  }
}
const started: Started[] = [];
const clicks: number[] = [];
let gains: FakeParam[] = [];
class FakeContext {
  currentTime = 10;
  outputLatency = 0.02;
  state = 'running';
  destination = {};
  resume() {
    return Promise.resolve();
  }
  createGain() {
    const gain = new FakeParam();
    gains.push(gain);
    return { gain, connect: (to: unknown) => to };
  }
  createBufferSource() {
    const source = {
      buffer: null,
      connect: (to: unknown) => to,
      start(at: number, offset: number, length: number) {
        started.push({ at, offset, length, stopped: false });
      },
      stop() {
        for (const s of started) s.stopped = true;
      },
    };
    return source;
  }
  createOscillator() {
    return {
      frequency: new FakeParam(),
      connect: (to: unknown) => to,
      start(at: number) {
        clicks.push(at);
      },
      stop() {},
    };
  }
}
let context: FakeContext;
let frame: (() => void) | null = null;
const world = globalThis as unknown as Record<string, unknown>;

/** The moments of these tests are free. */
const timeOf = (moment: Moment) => (moment.kind === 'free' ? moment.seconds : moment.last);

const { heardWhen, isPlaying, play, scrubSound, stop } = await (async () => {
  world.AudioContext = class {
    constructor() {
      context ??= new FakeContext();
      return context;
    }
  };
  world.requestAnimationFrame = (run: () => void) => {
    frame = run;
    return 1;
  };
  world.cancelAnimationFrame = () => {
    frame = null;
  };
  return import('./playback');
})();

const tone = Float32Array.from({ length: 8 * 1000 }, (_, i) => Math.sin(i / 3));
const buffer = {
  duration: 8,
  sampleRate: 1000,
  numberOfChannels: 1,
  getChannelData: () => tone,
} as unknown as AudioBuffer;
const music = (change: Partial<Music> = {}): Music => ({
  ...createMusic({ id: 'song', hash: 'a'.repeat(64), kind: 'audio', name: 'song.wav' }),
  ...change,
});
const passTime = (seconds: number) => {
  context.currentTime += seconds;
  const run = frame;
  frame = null;
  run?.();
};
let stops = 0;
const options = (change: Partial<Parameters<typeof play>[0]> = {}) => ({
  music: music(),
  buffer,
  end: 6,
  timeOf,
  loop: null,
  clicks: null,
  onStop: () => {
    stops++;
  },
  ...change,
});

beforeEach(() => {
  started.length = 0;
  clicks.length = 0;
  gains = [];
  stops = 0;
  playhead.set(0);
});
afterEach(() => stop());

describe('playing', () => {
  it('follows the audio clock less its latency, and stops at the end', async () => {
    await play(options());
    expect(isPlaying()).toBe(true);
    passTime(1);
    expect(playhead.seconds).toBeCloseTo(1 - 0.04 - 0.02, 2);
    passTime(10);
    expect([isPlaying(), playhead.seconds, stops]).toEqual([false, 6, 1]);
  });
  it('sounds each part of a cut song in its place, overlapping by the join', async () => {
    await play(options({ music: music({ cuts: [{ at: 2, to: 5 }] }) }));
    expect(started).toHaveLength(2);
    const [one, two] = started as [Started, Started];
    expect(one.at + one.length - two.at).toBeCloseTo(0.03, 6);
    expect(two.offset).toBeCloseTo(5 - 0.015, 6);
  });
  it('starts in the middle, and from the front again when it stood at the end', async () => {
    playhead.set(3);
    await play(options());
    expect(started[0]!.offset).toBeCloseTo(3, 6);
    stop();
    playhead.set(6);
    started.length = 0;
    await play(options());
    expect(started[0]!.offset).toBeCloseTo(0, 6);
  });
  it('loops without a gap: the next pass is scheduled before this one ends', async () => {
    playhead.set(5);
    await play(options({ loop: { from: 1, to: 2 } }));
    expect(started).toHaveLength(1);
    passTime(0.9);
    expect(started).toHaveLength(2);
    expect(started[1]!.at).toBeCloseTo(started[0]!.at + 1, 6);
    passTime(0.4);
    expect(playhead.seconds).toBeLessThan(1.4);
    expect(playhead.seconds).toBeGreaterThanOrEqual(1);
  });
  it('fades with the music, also out at the end of a shorter piece', async () => {
    await play(options({ music: music({ fadeIn: 1, fadeOut: 2 }) }));
    const points = gains[0]!.points;
    const start = points[0]![0];
    const levelAt = (t: number) =>
      points.reduce((best, p) => (Math.abs(p[0] - start - t) < Math.abs(best[0] - start - t) ? p : best))[1];
    expect(levelAt(0)).toBeCloseTo(0, 2);
    expect(levelAt(0.5)).toBeCloseTo(0.5, 1);
    expect(levelAt(5)).toBeCloseTo(0.5, 1);
    expect(levelAt(6)).toBeCloseTo(0, 1);
  });
  it('clicks on the beats that are asked for, and knows what was heard when a key was struck', async () => {
    await play(
      options({
        clicks: [
          { seconds: 0.5, stress: 'bar' },
          { seconds: 1, stress: 'beat' },
          { seconds: 9, stress: 'bar' },
        ],
      }),
    );
    expect(clicks.map((at) => at - 10 - 0.04 - (context.currentTime - 10))).toHaveLength(2);
    passTime(1);
    expect(heardWhen(performance.now())).toBeCloseTo(playhead.seconds, 1);
    stop();
    expect(heardWhen(performance.now())).toBe(playhead.seconds);
  });
  it('lets a grain of sound be heard while the playhead is moved by hand', () => {
    scrubSound(music(), buffer, timeOf, 2);
    expect(started[0]).toMatchObject({ offset: 2 });
    scrubSound(music(), buffer, timeOf, 2.01);
    expect(started).toHaveLength(1);
    scrubSound(null, null, timeOf, 1);
  });
});
