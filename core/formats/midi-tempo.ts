import type { Seconds } from '../time';
import type { TimingSheet } from './timing-sheet';

/**
 * The beats as a tempo map: a Standard MIDI File of format 1 with one track (RP-001, Standard MIDI Files 1.0). Every beat
 * is a quarter note and has a tempo of its own, so that bars and beats of another program fall where the music's do.
 */
export const TICKS_PER_QUARTER = 960;

/** The longest quarter a tempo can say, microseconds. */
const LONGEST = 0xffffff;

/** A number in groups of seven bits. */
function variable(value: number): number[] {
  const out = [value & 0x7f];
  for (let rest = value >> 7; rest > 0; rest >>= 7) out.unshift((rest & 0x7f) | 0x80);
  return out;
}
const bytes = (value: number, count: number): number[] =>
  Array.from({ length: count }, (_, i) => (value >>> (8 * (count - 1 - i))) & 0xff);
const text = (type: number, words: string): number[] => {
  const encoded = [...new TextEncoder().encode(words)];
  return [0xff, type, ...variable(encoded.length), ...encoded];
};
/** A bar of so many quarters; the quarter is the beat: 24 clocks and 8 thirty-seconds to it. */
const signature = (beats: number): number[] => [0xff, 0x58, 4, Math.min(255, beats), 2, 24, 8];
const META = { name: 0x03, marker: 0x06 } as const;

interface TickEvent {
  readonly tick: number;
  readonly data: readonly number[];
}

/** Where quarters begin: the beats, with what lies before the first and after the last in quarters of its own. */
function quarters({ beats, duration }: TimingSheet): { at: Seconds; isBeat: boolean }[] {
  const lead = beats[0]?.at ?? duration;
  const count = Math.max(1, Math.ceil((lead * 1e6) / LONGEST));
  const before =
    lead < 1e-6 ? [] : Array.from({ length: count }, (_, i) => ({ at: (lead * i) / count, isBeat: false }));
  return [...before, ...beats.map(({ at }) => ({ at, isBeat: true }))];
}

/** @throws never; a piece without beats gives one stretch of one tempo. */
export function writeMidiTempo(sheet: TimingSheet): Uint8Array {
  const starts = quarters(sheet);
  const ends = starts.map((_, i) => starts[i + 1]?.at ?? Math.max(sheet.duration, (starts[i]?.at ?? 0) + 0.1));
  const events: TickEvent[] = [{ tick: 0, data: text(META.name, sheet.name) }];
  // Rounded as a whole, so that nothing adds up.
  let told = 0;
  starts.forEach(({ at }, i) => {
    const length = Math.max(1, Math.min(LONGEST, Math.round(ends[i]! * 1e6) - told));
    told = Math.round(at * 1e6) + length;
    events.push({ tick: i * TICKS_PER_QUARTER, data: [0xff, 0x51, 3, ...bytes(length, 3)] });
  });
  const tickOf = (seconds: Seconds): number => {
    let i = 0;
    while (i + 1 < starts.length && starts[i + 1]!.at <= seconds + 1e-9) i++;
    const [a, b] = [starts[i]?.at ?? 0, ends[i] ?? 1];
    return Math.round((i + (seconds - a) / Math.max(1e-9, b - a)) * TICKS_PER_QUARTER);
  };
  // What lies before the first bar is one of its own, so that other programs count the same bars from there on.
  const lead = Math.round(tickOf(sheet.bars[0]?.at ?? 0) / TICKS_PER_QUARTER);
  if (lead > 0) events.push({ tick: 0, data: signature(lead) });
  let beatsPerBar = 0;
  for (const { at, beats } of sheet.bars) {
    if (beats !== beatsPerBar) events.push({ tick: tickOf(at), data: signature(beats) });
    beatsPerBar = beats;
  }
  for (const { name, from } of [...sheet.sections, ...sheet.markers])
    events.push({ tick: tickOf(from), data: text(META.marker, name) });
  const track: number[] = [];
  let now = 0;
  for (const { tick, data } of events.map((e, i) => ({ ...e, i })).sort((a, b) => a.tick - b.tick || a.i - b.i)) {
    track.push(...variable(tick - now), ...data);
    now = tick;
  }
  track.push(...variable(Math.max(0, tickOf(sheet.duration) - now)), 0xff, 0x2f, 0);
  const ascii = (word: string): number[] => [...word].map((sign) => sign.charCodeAt(0));
  return Uint8Array.from([
    ...[...ascii('MThd'), ...bytes(6, 4), ...bytes(1, 2), ...bytes(1, 2), ...bytes(TICKS_PER_QUARTER, 2)],
    ...[...ascii('MTrk'), ...bytes(track.length, 4), ...track],
  ]);
}
