import { ANALYSIS_RATE } from '@core/audio';
import { createRandom } from '../../demo/synth';

/** Sounds in which nobody would find a beat: mono at the analysis rate, 40 s each. */
const SECONDS = 40;
const COUNT = SECONDS * ANALYSIS_RATE;

type Random = () => number;

/** Noise that comes and goes as syllables do: 3 to 6 a second, in phrases. */
function syllables(random: Random): Float32Array {
  const out = new Float32Array(COUNT);
  for (let t = 0.2; t < SECONDS - 1;) {
    for (let left = 3 + Math.floor(random() * 9); left > 0 && t < SECONDS - 1; left--) {
      const [from, length] = [Math.floor(t * ANALYSIS_RATE), Math.floor((0.08 + random() * 0.15) * ANALYSIS_RATE)];
      const smooth = 0.1 + 0.6 * random();
      let low = 0;
      for (let i = 0; i < length; i++) {
        low += smooth * (random() * 2 - 1 - low);
        out[from + i]! += low * Math.sin((Math.PI * i) / length) * 0.8;
      }
      t += 0.14 + random() * 0.22;
    }
    t += 0.3 + random();
  }
  return out;
}

function struck(
  random: Random,
  times: readonly number[],
  tone: (random: Random) => (t: number) => number,
): Float32Array {
  const out = new Float32Array(COUNT);
  for (const at of times) {
    const voice = tone(random);
    const from = Math.floor(at * ANALYSIS_RATE);
    for (let i = 0; i < ANALYSIS_RATE && from + i < COUNT; i++) out[from + i]! += voice(i / ANALYSIS_RATE);
  }
  return out;
}

const click = (random: Random) => (t: number) => (t < 0.004 ? random() * 2 - 1 : 0);
const note = (random: Random) => {
  const f = 130 * 2 ** (Math.floor(random() * 24) / 12);
  return (t: number) =>
    0.4 *
    (Math.sin(2 * Math.PI * f * t) + 0.4 * Math.sin(4 * Math.PI * f * t)) *
    Math.exp(-3 * t) *
    Math.min(1, t * 300);
};

/** Times whose gaps are drawn anew each time. */
function times(gap: () => number): number[] {
  const out: number[] = [];
  for (let t = 0.3; t < SECONDS - 1; t += gap()) out.push(t);
  return out;
}

/** Played freely: the tempo wanders by half and waits. */
function rubato(random: Random): Float32Array {
  let speed = 0;
  return struck(
    random,
    times(() => {
      speed = 0.8 * speed + 0.35 * (random() * 2 - 1);
      return 0.45 * 2 ** speed * (random() < 0.12 ? 1.8 : 1) * (random() < 0.3 ? 0.5 : 1);
    }),
    note,
  );
}

function drone(random: Random): Float32Array {
  const voices = Array.from({ length: 5 }, () => ({
    f: 70 * 2 ** (Math.floor(random() * 24) / 12),
    s: 0.05 + random() * 0.1,
    p: random() * 6,
  }));
  return Float32Array.from({ length: COUNT }, (_, i) => {
    const t = i / ANALYSIS_RATE;
    return voices.reduce(
      (sum, { f, s, p }) =>
        sum + 0.12 * Math.sin(2 * Math.PI * f * t) * (0.6 + 0.4 * Math.sin(2 * Math.PI * s * t + p)),
      0,
    );
  });
}

/** Wind: noise whose loudness and colour wander. */
function wind(random: Random): Float32Array {
  let [low, gust, target, smooth] = [0, 0.2, 0.2, 0.1];
  return Float32Array.from({ length: COUNT }, (_, i) => {
    if (i % 4000 === 0) target = 0.05 + random() * 0.6;
    gust += (target - gust) / 9000;
    smooth += (0.02 + gust * 0.3 - smooth) / 9000;
    low += smooth * (random() * 2 - 1 - low);
    return low * gust * 2;
  });
}

const KINDS: Readonly<Record<string, (random: Random) => Float32Array>> = {
  'noise in syllables': syllables,
  'random clicks': (random) =>
    struck(
      random,
      times(() => -0.35 * Math.log(1 - random() * 0.98)),
      click,
    ),
  'random notes': (random) =>
    struck(
      random,
      times(() => 0.1 + random() * 0.9),
      note,
    ),
  rubato,
  drone,
  wind,
  'steady noise': (random) => Float32Array.from({ length: COUNT }, () => 0.2 * (random() * 2 - 1)),
};

export const noBeatSounds = (takes: number): { name: string; samples: () => Float32Array }[] =>
  Object.entries(KINDS).flatMap(([name, make], k) =>
    Array.from({ length: takes }, (_, take) => ({ name, samples: () => make(createRandom(100 * k + take + 1)) })),
  );
