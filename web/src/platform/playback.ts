import { JOIN_SECONDS, heardParts, lastHeard, musicLevel, partGain } from '@core/piece';
import type { Music, ResolvedTimes } from '@core/piece';
import type { beatStress } from '@core/time';
import { playhead } from './clock';
import { HeardLine, epochNow, secondsHeardAt } from './heard-clock';
import type { HeardPass } from './heard-clock';

/**
 * Sound and picture from one clock, the audio's. Every pass (a loop is many passes) is scheduled on the audio clock
 * before it begins, so that a loop has no gap; the playhead is computed from that clock for each frame, never counted
 * up. What is shown is what is heard now: the output's latency is taken off.
 */
interface Pass {
  readonly contextStart: number;
  readonly from: number;
  readonly to: number;
  readonly sources: readonly AudioScheduledSourceNode[];
}

export interface Click {
  /** Of the piece. */
  readonly seconds: number;
  readonly stress: ReturnType<typeof beatStress>;
}

export interface PlayOptions {
  readonly music: Music | null;
  readonly buffer: AudioBuffer | null;
  readonly end: number;
  /** Seconds of the volume's keyframes. */
  readonly timeOf: ResolvedTimes['timeOf'];
  readonly loop: { readonly from: number; readonly to: number } | null;
  /** Beats to be heard over the music, seconds of the piece; null without a click track. */
  readonly clicks: readonly Click[] | null;
  readonly onStop: () => void;
}

/** Time between asking and the first sample: a few render quanta, so that the start is not late. */
const START_DELAY = 0.04;
const SCHEDULE_AHEAD = 0.3;
const GRAIN_SECONDS = 0.07;

let context: AudioContext | null = null;
const audioContext = (): AudioContext =>
  (context ??= new AudioContext({ sampleRate: 48000, latencyHint: 'interactive' }));

const buffers = new Map<string, Promise<AudioBuffer>>();

/** The sound of a song, fetched and decoded once. */
export function songBuffer(hash: string): Promise<AudioBuffer> {
  let buffer = buffers.get(hash);
  if (!buffer) {
    buffer = fetch(`/api/media/${hash}/sound`).then(async (response) => {
      if (!response.ok) throw new Error(`sound ${response.status}`);
      return audioContext().decodeAudioData(await response.arrayBuffer());
    });
    buffer.catch(() => buffers.delete(hash));
    buffers.set(hash, buffer);
  }
  return buffer;
}

/** Of the piece's times, what its sound hangs on. */
type PieceTimes = Pick<ResolvedTimes, 'end' | 'timeOf'>;

/** Points of a gain curve a second; between them the gain runs straight. */
const CURVE_POINTS = 200;

/**
 * Schedules what sounds of [from, to) of the piece: every part of the song, crossfaded at its joins as the export does
 * it.
 */
function scheduleSound(
  music: Music | null,
  buffer: AudioBuffer | null,
  { end, timeOf }: PieceTimes,
  at: number,
  from: number,
  to: number,
): AudioScheduledSourceNode[] {
  if (!music || !buffer) return [];
  const ctx = audioContext();
  const channels = Array.from({ length: buffer.numberOfChannels }, (_, i) => buffer.getChannelData(i));
  const parts = heardParts(music, buffer.duration, { channels, rate: buffer.sampleRate, offset: 0 });
  const finish = lastHeard(music, buffer.duration, end);
  const volume = musicLevel(music, finish, timeOf);
  const keys = music.volume.keyframes.map((key) => timeOf(key.at)).sort((p, q) => p - q);
  return parts.flatMap((part) => {
    const { isFirst, isLast, begin, end: over } = part;
    const [a, b] = [Math.max(from, begin), Math.min(to, over)];
    if (b - a < 1e-4) return [];
    const source = ctx.createBufferSource();
    source.buffer = buffer;
    const gain = ctx.createGain();
    source.connect(gain).connect(ctx.destination);
    const level = (t: number) => partGain(part, t) * volume(t);
    const corners = [a, b];
    const fades: [number, number][] = [
      [music.start, music.start + music.fadeIn],
      [finish - music.fadeOut, finish],
      [begin, isFirst ? begin : begin + JOIN_SECONDS],
      [isLast ? over : over - JOIN_SECONDS, over],
      ...keys.slice(1).map((t, i): [number, number] => [keys[i] ?? t, t]),
    ];
    for (const [x, y] of fades)
      for (let k = 0, n = Math.max(2, Math.min(400, Math.ceil((y - x) * CURVE_POINTS))); k <= n && y > x; k++)
        corners.push(x + ((y - x) * k) / n);
    const times = corners.filter((t) => t >= a && t <= b).sort((p, q) => p - q);
    gain.gain.setValueAtTime(level(a), at + a - from);
    for (const t of times) gain.gain.linearRampToValueAtTime(level(t), at + t - from);
    source.start(at + a - from, part.from + a - part.at, b - a);
    return [source];
  });
}

/** Pitch and loudness of a click: the more stress, the higher. */
const CLICKS: Readonly<Record<Click['stress'], { readonly hertz: number; readonly level: number }>> = {
  bar: { hertz: 1760, level: 0.6 },
  group: { hertz: 1397, level: 0.5 },
  beat: { hertz: 1174, level: 0.4 },
};

/** Clicks of the beats in [from, to). */
function scheduleClicks(
  clicks: PlayOptions['clicks'],
  at: number,
  from: number,
  to: number,
): AudioScheduledSourceNode[] {
  const ctx = audioContext();
  return (clicks ?? []).flatMap(({ seconds, stress }) => {
    if (seconds < from || seconds >= to) return [];
    const when = at + seconds - from;
    const tone = ctx.createOscillator();
    tone.frequency.value = CLICKS[stress].hertz;
    const gain = ctx.createGain();
    gain.gain.setValueAtTime(0, when);
    gain.gain.linearRampToValueAtTime(CLICKS[stress].level, when + 0.001);
    gain.gain.exponentialRampToValueAtTime(0.001, when + 0.045);
    tone.connect(gain).connect(ctx.destination);
    tone.start(when);
    tone.stop(when + 0.05);
    return [tone];
  });
}

const schedule = (o: PlayOptions, at: number, from: number, to: number) => [
  ...scheduleSound(o.music, o.buffer, o, at, from, to),
  ...scheduleClicks(o.clicks, at, from, to),
];

let passes: Pass[] = [];
const line = new HeardLine();
let options: PlayOptions | null = null;
let raf = 0;

export const isPlaying = (): boolean => options !== null;

/** Reads what is heard just now: by the output's own clock where it tells it, else by the latency that it states. */
function readLine(): void {
  const ctx = audioContext();
  const { contextTime = 0, performanceTime = 0 } = ctx.getOutputTimestamp?.() ?? {};
  if (contextTime > 0 && performanceTime > 0) line.read(contextTime, performance.timeOrigin + performanceTime);
  else line.read(ctx.currentTime - (ctx.outputLatency || 0), epochNow());
}

/** What is heard when, as far as it is scheduled; nothing while nothing plays. */
export const heardPasses = (): readonly HeardPass[] =>
  options ? passes.map(({ contextStart, from, to }) => ({ since: line.momentOf(contextStart), from, to })) : [];

function tick(): void {
  if (!options) return;
  const ctx = audioContext();
  readLine();
  const newest = passes[passes.length - 1]!; // play() adds the first
  const newestEnd = newest.contextStart + newest.to - newest.from;
  if (options.loop && newestEnd - ctx.currentTime < SCHEDULE_AHEAD) {
    const { from, to } = options.loop;
    passes.push({ contextStart: newestEnd, from, to, sources: schedule(options, newestEnd, from, to) });
  }
  const now = epochNow();
  while (passes.length > 1 && now >= line.momentOf(passes[1]!.contextStart)) passes.shift();
  const pass = passes[0]!;
  const seconds = secondsHeardAt(heardPasses(), now);
  if (!options.loop && seconds >= pass.to) {
    const { end } = options;
    stop();
    playhead.set(end);
    return;
  }
  playhead.set(Math.min(seconds, pass.to));
  raf = requestAnimationFrame(tick);
}

/**
 * The time of the piece that was heard when an event happened: computed from the audio clock, less the output's latency
 * and less the time the event waited before it was handled.
 * @param eventTime - as `event.timeStamp`, milliseconds.
 */
export function heardWhen(eventTime: number): number {
  const heard = heardPasses();
  if (heard.length === 0) return playhead.seconds;
  return secondsHeardAt(heard, performance.timeOrigin + eventTime);
}

/** Plays from the playhead; a loop starts inside its range. */
export async function play(next: PlayOptions): Promise<void> {
  stop();
  const ctx = audioContext();
  await ctx.resume();
  let from = playhead.seconds;
  if (next.loop && (from < next.loop.from || from >= next.loop.to)) from = next.loop.from;
  if (!next.loop && from >= next.end - 1e-3) from = 0;
  const to = next.loop ? next.loop.to : next.end;
  options = next;
  line.forget();
  readLine();
  const contextStart = ctx.currentTime + START_DELAY;
  passes = [{ contextStart, from, to, sources: schedule(next, contextStart, from, to) }];
  raf = requestAnimationFrame(tick);
}

export function stop(): void {
  cancelAnimationFrame(raf);
  for (const { sources } of passes) for (const source of sources) source.stop();
  passes = [];
  const stopped = options;
  options = null;
  stopped?.onStop();
}

let lastGrain = 0;

/** A short piece of the sound at a time, for hearing while scrubbing. */
export function scrubSound(
  music: Music | null,
  buffer: AudioBuffer | null,
  timeOf: PieceTimes['timeOf'],
  seconds: number,
): void {
  if (!buffer || options) return;
  const ctx = audioContext();
  if (ctx.state === 'suspended') void ctx.resume();
  if (ctx.currentTime - lastGrain < GRAIN_SECONDS * 0.8) return;
  lastGrain = ctx.currentTime;
  scheduleSound(
    music ? { ...music, fadeIn: 0, fadeOut: 0 } : null,
    buffer,
    { end: Infinity, timeOf },
    ctx.currentTime + 0.005,
    seconds,
    seconds + GRAIN_SECONDS,
  );
}
