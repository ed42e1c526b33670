import type { Music } from '@core/piece';
import { playhead } from './clock';

/**
 * Sound and picture from one clock, the audio's. Every pass (a loop is many passes) is scheduled on the audio clock before
 * it begins, so that a loop has no gap; the playhead is computed from that clock for each frame, never counted up. What
 * is shown is what is heard now: the output's latency is taken off.
 */
interface Pass {
  readonly contextStart: number;
  readonly from: number;
  readonly to: number;
  readonly source: AudioBufferSourceNode | null;
}

export interface PlayOptions {
  readonly music: Music | null;
  readonly buffer: AudioBuffer | null;
  readonly end: number;
  readonly loop: { readonly from: number; readonly to: number } | null;
  readonly onStop: () => void;
}

/** Time between asking and the first sample: a few render quanta, so that the start is not late. */
const START_DELAY = 0.04;
const SCHEDULE_AHEAD = 0.3;
const GRAIN_SECONDS = 0.07;

let context: AudioContext | null = null;
const audioContext = (): AudioContext => (context ??= new AudioContext({ sampleRate: 48000, latencyHint: 'interactive' }));

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

/** Schedules the song's part of [from, to) of the piece; null if no sound falls into it. */
function scheduleSound(music: Music | null, buffer: AudioBuffer | null, at: number, from: number, to: number): AudioBufferSourceNode | null {
  if (!music || !buffer) return null;
  const ctx = audioContext();
  const songEnd = Math.min(music.trimEnd ?? buffer.duration, buffer.duration);
  const firstPiece = Math.max(from, music.start);
  const lastPiece = Math.min(to, music.start + songEnd - music.trimStart);
  if (lastPiece <= firstPiece) return null;
  const source = ctx.createBufferSource();
  source.buffer = buffer;
  const gain = ctx.createGain();
  source.connect(gain).connect(ctx.destination);
  const when = at + firstPiece - from;
  const begin = music.start;
  const finish = music.start + songEnd - music.trimStart;
  const level = (piece: number) => music.gain * Math.min(1, music.fadeIn > 0 ? Math.max(0, (piece - begin) / music.fadeIn) : 1, music.fadeOut > 0 ? Math.max(0, (finish - piece) / music.fadeOut) : 1);
  gain.gain.setValueAtTime(level(firstPiece), when);
  for (const corner of [begin + music.fadeIn, finish - music.fadeOut, lastPiece]) if (corner > firstPiece && corner <= lastPiece) gain.gain.linearRampToValueAtTime(level(corner), when + corner - firstPiece);
  source.start(when, firstPiece - music.start + music.trimStart, lastPiece - firstPiece);
  return source;
}

let passes: Pass[] = [];
let options: PlayOptions | null = null;
let raf = 0;

export const isPlaying = (): boolean => options !== null;

function tick(): void {
  if (!options) return;
  const ctx = audioContext();
  const heard = ctx.currentTime - (ctx.outputLatency || 0);
  const newest = passes[passes.length - 1]!; // play() adds the first
  const newestEnd = newest.contextStart + newest.to - newest.from;
  if (options.loop && newestEnd - ctx.currentTime < SCHEDULE_AHEAD) {
    const { from, to } = options.loop;
    passes.push({ contextStart: newestEnd, from, to, source: scheduleSound(options.music, options.buffer, newestEnd, from, to) });
  }
  while (passes.length > 1 && heard >= passes[1]!.contextStart) passes.shift();
  const pass = passes[0]!;
  const seconds = pass.from + Math.max(0, heard - pass.contextStart);
  if (!options.loop && seconds >= pass.to) {
    const { end } = options;
    stop();
    playhead.set(end);
    return;
  }
  playhead.set(Math.min(seconds, pass.to));
  raf = requestAnimationFrame(tick);
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
  const contextStart = ctx.currentTime + START_DELAY;
  passes = [{ contextStart, from, to, source: scheduleSound(next.music, next.buffer, contextStart, from, to) }];
  raf = requestAnimationFrame(tick);
}

export function stop(): void {
  cancelAnimationFrame(raf);
  for (const { source } of passes) source?.stop();
  passes = [];
  const stopped = options;
  options = null;
  stopped?.onStop();
}

let lastGrain = 0;

/** A short piece of the sound at a time, for hearing while scrubbing. */
export function scrubSound(music: Music | null, buffer: AudioBuffer | null, seconds: number): void {
  if (!buffer || options) return;
  const ctx = audioContext();
  if (ctx.state === 'suspended') void ctx.resume();
  if (ctx.currentTime - lastGrain < GRAIN_SECONDS * 0.8) return;
  lastGrain = ctx.currentTime;
  scheduleSound(music ? { ...music, fadeIn: 0, fadeOut: 0 } : null, buffer, ctx.currentTime + 0.005, seconds, seconds + GRAIN_SECONDS);
}
