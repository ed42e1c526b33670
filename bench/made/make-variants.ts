/**
 * Plays the songs of the beat kit otherwise than the kit does, to see how much hangs on this one rendering: npm run
 * make:variants -- FOLDER. Each is played three times: by another soundfont; from a place within on, as if it began
 * there; and cut out of the midst of its sound. All have other tempi than in the kit. BEATBENCH_DIR says where that lies.
 */
import { execFile } from 'node:child_process';
import { createHash } from 'node:crypto';
import { renameSync, rmSync } from 'node:fs';
import { promisify } from 'node:util';
import { createRandom } from '../../demo/synth';
import { KIT_FOLDER, VARIANT_MARK, songFiles } from '../song-files';
import type { Truth } from '../song-files';
import { hashOf } from './arrange';
import { kitMidis } from './kit-midis';
import { midiFile } from './midi';
import type { TimedEvent } from './midi';
import { readMidi } from './read-midi';
import type { NotatedEvent } from './read-midi';
import { namedSongFolder } from './song-folder';
import type { SongFolder } from './song-folder';
import { playMidi, soundfonts as soundfontsHere } from './soundfonts';

const run = promisify(execFile);

interface KitTruth extends Truth {
  readonly source: string;
  readonly midi: string;
  readonly duration: number;
}

/** What the kit itself makes of a name: a number in [0, 1). */
const kitNumber = (what: string, name: string): number =>
  createHash('sha1')
    .update(what + name)
    .digest()
    .readUInt32BE(0) /
  2 ** 32;

/** The events at the times at which the kit plays them. */
function asInTheKit(name: string, events: readonly NotatedEvent[]): NotatedEvent[] {
  const first = events.find(({ event }) => event.type === 'noteOn' && event.velocity > 0)?.at ?? 0;
  const stretch = 1 + 0.07 * (2 * kitNumber('scale', name) - 1);
  const lead = 0.05 + 0.65 * kitNumber('lead', name);
  return events.map(({ at, event }) => ({ at: (at - first) * stretch + lead, event }));
}

interface Variant {
  readonly name: string;
  readonly soundfont: string;
  /** Second of the kit's song at which it begins; all of it where null. */
  readonly from: number | null;
  /** Factor of all durations. */
  readonly stretch: number;
  /** Seconds of silence before it. */
  readonly silence: number;
  /** Seconds of sound before its begin that are played and then cut away. */
  readonly cut: number;
}

const SOUNDING = new Set(['noteOn', 'noteOff', 'noteAftertouch', 'channelAftertouch', 'pitchBend']);
/** Seconds of sound before a cut. */
const BEFORE_CUT = 2;
/** Shorter excerpts aren't worth it. */
const SHORTEST = 25;

function variantsOf(name: string, duration: number, fonts: readonly string[]): Variant[] {
  const random = createRandom(hashOf(name));
  const stretch = () => 1 + 0.14 * (2 * random() - 1);
  const within = () => Math.max(0, Math.min(12 + 13 * random(), duration - SHORTEST));
  const [usual, other] = [fonts[0]!, fonts[1] ?? fonts[0]!];
  return [
    { name: 'font', soundfont: other, from: null, stretch: stretch(), silence: 0.05 + random(), cut: 0 },
    { name: 'late', soundfont: usual, from: within(), stretch: stretch(), silence: 0.05 + random(), cut: 0 },
    { name: 'cut', soundfont: other, from: within(), stretch: stretch(), silence: 0, cut: BEFORE_CUT },
  ];
}

/** Ends all notes on all channels: else FluidSynth plays on until every voice is silent. */
const allOff = (at: number): TimedEvent[] =>
  Array.from({ length: 16 }, (_, channel) => channel).flatMap((channel) =>
    [64, 123, 120].map((controllerType) => ({
      at,
      event: { deltaTime: 0, type: 'controller', channel, controllerType, value: 0 } as const,
    })),
  );

async function write(
  { wavOf, writeTruth }: SongFolder,
  truth: KitTruth,
  events: readonly NotatedEvent[],
  { silence, cut, ...variant }: Variant,
): Promise<void> {
  const start = variant.from ?? 0;
  const heard = (times: readonly number[]): number[] =>
    times.filter((t) => t >= start).map((t) => (t - start) * variant.stretch + silence);
  // Where sound is cut away it must have begun before.
  const soundsFrom = start - cut / variant.stretch;
  const millisecondsOf = (t: number): number =>
    Math.round(1000 * Math.max(0, (t - soundsFrom) * variant.stretch + silence));
  const played = events
    .filter(({ at, event }) => at < truth.duration && (at >= soundsFrom || !SOUNDING.has(event.type)))
    .map(({ at, event }) => ({ at: millisecondsOf(at), event: { ...event, deltaTime: 0 } }));
  const midi = midiFile([...played, ...allOff(millisecondsOf(truth.duration))]);
  const name = `${truth.name}${VARIANT_MARK}${variant.name}`;
  const wav = wavOf(name);
  await playMidi(midi, variant.soundfont, wav);
  if (cut > 0) {
    const whole = `${wav}.whole.wav`;
    renameSync(wav, whole);
    await run('ffmpeg', ['-v', 'error', '-y', '-ss', `${cut}`, '-i', whole, wav], { timeout: 60_000 });
    rmSync(whole);
  }
  writeTruth(name, {
    ...truth,
    name,
    bpm: truth.bpm / variant.stretch,
    duration: (truth.duration - start) * variant.stretch + silence,
    beats: heard(truth.beats),
    downbeats: heard(truth.downbeats),
  });
}

const songFolder = namedSongFolder();
const fonts = soundfontsHere();
const midis = kitMidis(KIT_FOLDER);
const truths = songFiles([KIT_FOLDER]).map(({ truth }) => truth as KitTruth);
let count = 0;
for (const truth of truths) {
  const midi = midis.get(truth.midi);
  if (!midi) throw new Error(`no MIDI file of ${truth.name} in ${KIT_FOLDER}`);
  const events = asInTheKit(truth.name, readMidi(midi));
  const variants = variantsOf(truth.name, truth.duration, fonts);
  await Promise.all(variants.map((variant) => write(songFolder, truth, events, variant)));
  count += variants.length;
}
console.log(`${count} variants of ${truths.length} songs in ${songFolder.folder}`);
