import { execFile } from 'node:child_process';
import { readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { parseMidi } from 'midi-file';
import type { MidiData, MidiEvent } from 'midi-file';
import { createRandom } from '../../demo/synth';
import { hashOf } from './arrange';
import { midiFile } from './midi';
import type { TimedEvent } from './midi';
import type { KnownSong } from './notes';

const run = promisify(execFile);
/** Where Debian's package `mma` keeps its styles of accompaniment. */
const GROOVES = '/usr/share/mma/lib';
/** Of every how many styles of a folder one is played: those of some folders are much alike. */
const EVERY: Readonly<Record<string, number>> = { casio: 3, zoom: 2 };
const NOT_MUSIC = /^(metronome|none|count|init|intro|ending|hrk|reset)/i;
const SECONDS = 45;
const CHORDS = [
  'C Am F G',
  'Dm G C C',
  'Em7 A7 Dm7 G7',
  'C C F C',
  'Am F C G',
  'F Fm C A7',
  'C7 F7 C7 G7',
  'Am Dm E7 Am',
];

/** A style of accompaniment: who wrote it knew how such music goes. */
export interface GrooveStyle {
  /** As in `stdlib/bossanova`. */
  readonly path: string;
  readonly grooves: readonly string[];
  readonly fills: readonly string[];
  /** Quarters a bar, as the style counts. */
  readonly quarters: number;
}

/** The styles that are played, by folder and name. @throws Error if the package isn't installed. */
export function grooveStyles(): GrooveStyle[] {
  const folders = readdirSync(GROOVES, { withFileTypes: true }).filter((entry) => entry.isDirectory());
  return folders.flatMap(({ name: folder }) =>
    readdirSync(join(GROOVES, folder))
      .filter((file) => file.endsWith('.mma') && !NOT_MUSIC.test(file) && !/^(std|pf)pats/.test(file))
      .sort()
      .filter((_, i) => i % (EVERY[folder] ?? 1) === 0)
      .flatMap((file) => {
        const text = readFileSync(join(GROOVES, folder, file), 'latin1');
        const all = [...text.matchAll(/^\s*DefGroove\s+(\S+)/gim)].map((found) => found[1]!);
        const grooves = all.filter((name) => !/intro|end|fill|tag|break|metro/i.test(name));
        const quarters = Number(/^\s*Time\s+(\d+)/im.exec(text)?.[1] ?? 4);
        const fills = all.filter((name) => /fill/i.test(name));
        return grooves.length ? [{ path: `${folder}/${file.slice(0, -4)}`, grooves, fills, quarters }] : [];
      }),
  );
}

/** The tempo in quarters a minute: slow and fast styles as they are named. */
function tempoOf(style: GrooveStyle, random: () => number): number {
  const [low, high] = /slow|ballad|bald/.test(style.path)
    ? [58, 105]
    : /fast|quick|bebop|dnb/.test(style.path)
      ? [150, 230]
      : [75, 185];
  // Bars of six are counted in eighths, three of which are a beat.
  return low * (high / low) ** random() * (style.quarters === 6 ? 2 : 1);
}

export interface GrooveSong extends KnownSong {
  readonly midi: Buffer;
}

type Pick = <T>(list: readonly T[]) => T;

/** What `mma` is told: two grooves in turns, eight bars each, at times with a fill before the next. */
function scriptOf(style: GrooveStyle, bpm: number, bars: number, random: () => number, pick: Pick): string {
  const chosen = [pick(style.grooves), pick(style.grooves)];
  const chords = pick(CHORDS).split(' ');
  const lines = [`RndSeed ${hashOf(style.path) % 1000}`, `Use ${style.path}`, `Tempo ${bpm.toFixed(2)}`];
  for (let bar = 0; bar < bars; bar++) {
    if (bar % 8 === 7 && style.fills.length && random() < 0.5) lines.push(`Groove ${pick(style.fills)}`);
    else if (bar % 8 === 0) lines.push(`Groove ${chosen[Math.floor(bar / 8) % 3 === 2 ? 1 : 0]!}`);
    lines.push(`${bar + 1} ${chords[bar % chords.length]!}`);
  }
  return `${lines.join('\n')}\n`;
}

/** @returns the file as it was played; null if the program did not know what to make of the script. */
async function played(script: string, name: string, folder: string): Promise<MidiData | null> {
  const [text, score] = [join(folder, `${name}.mma`), join(folder, `${name}.mid`)];
  writeFileSync(text, script);
  try {
    await run('mma', ['-f', score, text], { timeout: 60_000 });
    return parseMidi(readFileSync(score));
  } catch (error) {
    console.log(name, error instanceof Error ? error.message.split('\n')[0] : error);
    return null;
  } finally {
    for (const file of [text, score]) rmSync(file, { force: true });
  }
}

/** Events by quarters from the file's begin; null if the tempo changes on the way. */
function byQuarters({ tracks, header }: MidiData): { readonly quarter: number; readonly event: MidiEvent }[] | null {
  const out: { quarter: number; event: MidiEvent }[] = [];
  for (const track of tracks) {
    let tick = 0;
    for (const event of track) {
      tick += event.deltaTime;
      if (event.type === 'setTempo' && tick > 0) return null;
      if ('channel' in event) out.push({ quarter: tick / (header.ticksPerBeat ?? 192), event });
    }
  }
  return out;
}

/** Keeps notes from sounding beyond the end. */
const silenceAt = (at: number): TimedEvent[] =>
  Array.from({ length: 16 }, (_, channel) => ({
    at,
    event: { deltaTime: 0, type: 'controller', channel, controllerType: 123, value: 0 },
  }));

/** Fewer notes are no song. */
const FEWEST_NOTES = 40;
/** Of how many songs the drums are left out, and how many begin in the middle of a bar. */
const DRUMLESS = 0.2;
const CUT = 0.3;

/** A song of the style, played by `mma`; null if it comes to nothing. */
export async function grooveSong(style: GrooveStyle, folder: string): Promise<GrooveSong | null> {
  const name = style.path.replace(/[^a-z0-9]+/gi, '_');
  const random = createRandom(hashOf(style.path));
  const pick: Pick = (list) => list[Math.floor(random() * list.length)]!; // no list is empty
  const quarter = 60 / (Math.round(100 * tempoOf(style, random)) / 100);
  const { quarters } = style;
  const bars = Math.ceil(SECONDS / (quarter * quarters)) + 2;
  const file = await played(scriptOf(style, 60 / quarter, bars, random, pick), name, folder);
  const events = file && byQuarters(file);
  if (!events) return null;
  const isDrumless = random() < DRUMLESS;
  const cut = random() < CUT ? Math.floor(random() * quarters * 2) : 0;
  const lead = 0.05 + 0.6 * random();
  const at = (q: number): number => (q - cut) * quarter + lead;
  const length = SECONDS + lead;
  const kept = events.flatMap(({ quarter: q, event }) => {
    const isOut = isDrumless && 'channel' in event && event.channel === 9;
    const isBefore = event.type === 'noteOn' && at(q) < lead - 0.02;
    return isOut || isBefore || at(q) >= length ? [] : [{ at: Math.max(lead, at(q)), event }];
  });
  const notes = kept.filter(({ event }) => event.type === 'noteOn').map((note) => note.at);
  if (notes.length < FEWEST_NOTES) return null;
  const [first, last] = [Math.min(...notes) - 0.03, Math.max(...notes) + 0.03];
  const perBeat = quarters === 6 ? 3 : 1;
  const sounding = Array.from({ length: bars * quarters }, (_, q) => q).filter((q) => at(q) >= first && at(q) <= last);
  return {
    name,
    family: `groove: ${style.path.replace(/[0-9]/g, '')}`,
    bpm: 60 / quarter / perBeat,
    length,
    beats: sounding.filter((q) => q % perBeat === 0).map(at),
    downbeats: sounding.filter((q) => q % quarters === 0).map(at),
    midi: midiFile([
      ...kept.map((timed) => ({ ...timed, at: Math.round(1000 * timed.at) })),
      ...silenceAt(Math.round(1000 * length)),
    ]),
  };
}
