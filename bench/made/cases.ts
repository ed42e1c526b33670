import { createRandom } from '../../demo/synth';
import { arrange, barsIn, hashOf, plainBars } from './arrange';
import type { Arrangement, BarPlan } from './arrange';
import type { Drum, MadeSong, Part } from './notes';
import { styleNamed } from './styles';
import type { Style } from './styles';

/** Music with something in it that misleads: rests, restarts, hats alone, starts off the beat, changing bars and tempi. */

type Change = Partial<Pick<Arrangement, 'bars' | 'bpmAt' | 'rests' | 'from' | 'lead'>>;

function made(what: string, name: string, bpm: number, change: (style: Style, count: number) => Change): MadeSong {
  const style = styleNamed(name);
  const title = `${what}, ${name} at ${bpm}`;
  const seed = hashOf(title);
  const random = createRandom(seed);
  const count = Math.max(10, barsIn(50, bpm, style));
  const song = arrange({
    name: title,
    style,
    seed,
    lead: 0.3 + random() * 0.6,
    bars: plainBars(style, count, random),
    bpmAt: () => bpm,
    jitter: 0.003,
    ...change(style, count),
  });
  return { ...song, family: `case: ${what.replace(/[0-9., ]+/g, ' ').trim()}` };
}

const only =
  (drums: readonly Drum[]) =>
  (style: Style): BarPlan => ({
    beatsPerBar: style.beatsPerBar,
    silent: new Set<Part>(['bass', 'chords', 'melody']),
    drums,
  });
const full = (style: Style): BarPlan => ({ beatsPerBar: style.beatsPerBar, silent: new Set() });
const bars = (count: number, plan: (bar: number) => BarPlan): BarPlan[] =>
  Array.from({ length: count }, (_, i) => plan(i));

export function madeCases(): MadeSong[] {
  const out: MadeSong[] = [];
  for (const [name, bpm] of [
    ['rock', 118],
    ['house', 126],
    ['motown', 108],
    ['waltz', 132],
  ] as const) {
    for (const rest of [1.5, 2.4, 3])
      out.push(
        made(`rest of ${rest} beats`, name, bpm, (_, count) => ({ rests: new Map([[Math.floor(count / 2), rest]]) })),
      );
  }
  for (const [name, bpm, hat] of [
    ['house', 124, 'openHat'],
    ['house', 132, 'openHat'],
    ['rock', 104, 'hat'],
    ['disco', 120, 'openHat'],
  ] as const) {
    for (const seconds of [12, 24])
      out.push(
        made(`${hat} alone for ${seconds} s`, name, bpm, (style, count) => {
          const quiet = barsIn(seconds, bpm, style);
          return { bars: bars(count + quiet, (i) => (i < quiet ? only([hat])(style) : full(style))) };
        }),
      );
  }
  for (const [name, bpm] of [
    ['one drop', 74],
    ['ska', 144],
    ['house', 120],
    ['bossa', 130],
  ] as const) {
    out.push(made('starts on the half beat', name, bpm, () => ({ from: 0.5 })));
    out.push(
      made('off the beat for 30 s', name, bpm, (style, count) => {
        const quiet = barsIn(30, bpm, style);
        return {
          bars: bars(count + quiet, (i) =>
            i < quiet
              ? { beatsPerBar: style.beatsPerBar, silent: new Set<Part>(['drums', 'bass', 'melody']) }
              : full(style),
          ),
        };
      }),
    );
  }
  for (const [name, from, to] of [
    ['rock', 100, 128],
    ['piano ballad', 72, 90],
    ['house', 122, 110],
    ['swing', 120, 150],
  ] as const) {
    out.push(
      made(`tempo jumps to ${to}`, name, from, (style, count) => ({
        bpmAt: (beat) => (beat < (count / 2) * style.beatsPerBar ? from : to),
      })),
    );
    out.push(
      made(`tempo glides to ${to}`, name, from, (style, count) => ({
        bpmAt: (beat) => from + ((to - from) * beat) / (count * style.beatsPerBar),
      })),
    );
  }
  for (const [name, bpm, pattern] of [
    ['rock', 120, [4, 4, 4, 2]],
    ['rock', 132, [4, 3]],
    ['motown', 112, [4, 4, 4, 5]],
    ['plucked', 96, [3, 4, 4]],
    ['synthwave', 108, [4, 4, 2, 4]],
    ['rock in three', 126, [3, 3, 3, 2]],
  ] as const)
    out.push(
      made(`bars of ${pattern.join(', ')}`, name, bpm, (style, count) => ({
        bars: bars(count, (i) => ({ ...full(style), beatsPerBar: pattern[i % pattern.length]! })),
      })),
    );
  for (const [name, bpm] of [
    ['rock', 124],
    ['house', 128],
    ['twelve-eight', 66],
    ['trap', 142],
  ] as const)
    out.push(
      made('drums stop for twelve seconds', name, bpm, (style, count) => {
        const quiet = barsIn(12, bpm, style);
        const at = Math.floor(count / 2);
        return {
          bars: bars(count, (i) =>
            i >= at && i < at + quiet
              ? { beatsPerBar: style.beatsPerBar, silent: new Set<Part>(['drums', 'bass']) }
              : full(style),
          ),
        };
      }),
    );
  for (const bpm of [60, 76, 96, 120, 150])
    for (const noise of [0, 0.006, 0.015]) {
      const name = `clicks at ${bpm}${noise > 0 ? ` over noise of ${noise}` : ''}`;
      const style: Style = {
        name: 'clicks',
        family: 'case: clicks',
        tempi: [bpm],
        beatsPerBar: 4,
        steps: 1,
        drums: { rim: ['xxxx'] },
      };
      const count = barsIn(45, bpm, style);
      const song = arrange({
        name,
        style,
        seed: hashOf(name),
        lead: 0.7,
        bars: bars(count, () => full(style)),
        bpmAt: () => bpm,
        jitter: 0,
      });
      out.push({ ...song, isWithoutBars: true, noise });
    }
  return out;
}
