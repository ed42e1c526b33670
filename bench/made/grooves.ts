import { execFile } from 'node:child_process';
import { readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { parseMidi, writeMidi } from 'midi-file';
import type { MidiEvent } from 'midi-file';
import { createRandom } from '../../demo/synth';
import { hashOf } from './arrange';

const run = promisify(execFile);
/** Where Debian's package `mma` keeps its styles of accompaniment. */
export const GROOVES = '/usr/share/mma/lib';
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

/** The styles that are played, by folder and name; none where the package isn't installed. */
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
    : /fast|quick|bebop|dnb|fast/.test(style.path)
      ? [150, 230]
      : [75, 185];
  // Bars of six are counted in eighths, three of which are a beat.
  return low * (high / low) ** random() * (style.quarters === 6 ? 2 : 1);
}

export interface GrooveSong {
  readonly name: string;
  readonly family: string;
  readonly bpm: number;
  readonly length: number;
  readonly beats: readonly number[];
  readonly downbeats: readonly number[];
  readonly midi: Buffer;
}

/** A song of the style, played by `mma`: its parts in turns, some without drums, some from the middle of a bar on. */
export async function grooveSong(style: GrooveStyle, folder: string): Promise<GrooveSong | null> {
  const name = style.path.replace(/[^a-z0-9]+/gi, '_');
  const random = createRandom(hashOf(style.path));
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const quarter = 60 / (Math.round(100 * tempoOf(style, random)) / 100);
  const { quarters } = style;
  const bars = Math.ceil(SECONDS / (quarter * quarters)) + 2;
  const chosen = [pick(style.grooves), pick(style.grooves)];
  const lines = [`RndSeed ${hashOf(style.path) % 1000}`, `Use ${style.path}`, `Tempo ${(60 / quarter).toFixed(2)}`];
  const chords = pick(CHORDS).split(' ');
  for (let bar = 0; bar < bars; bar++) {
    if (bar % 8 === 7 && style.fills.length && random() < 0.5) lines.push(`Groove ${pick(style.fills)}`);
    else if (bar % 8 === 0) lines.push(`Groove ${chosen[Math.floor(bar / 8) % 3 === 2 ? 1 : 0]!}`);
    lines.push(`${bar + 1} ${chords[bar % chords.length]!}`);
  }
  const [script, score] = [join(folder, `${name}.mma`), join(folder, `${name}.mid`)];
  writeFileSync(script, `${lines.join('\n')}\n`);
  try {
    await run('mma', ['-f', score, script], { timeout: 60_000 });
  } catch (error) {
    console.log(
      style.path,
      `${String((error as { stdout?: string }).stdout)
        .trim()
        .split('\n')
        .pop()}`,
    );
    return null;
  } finally {
    rmSync(script);
  }
  const file = parseMidi(readFileSync(score));
  rmSync(score);
  const isDrumless = random() < 0.2;
  const cut = random() < 0.3 ? Math.floor(random() * quarters * 2) : 0;
  const lead = 0.05 + 0.6 * random();
  const timed: { at: number; event: MidiEvent }[] = [];
  for (const track of file.tracks) {
    let tick = 0;
    for (const event of track) {
      tick += event.deltaTime;
      const at = (tick / file.header.ticksPerBeat! - cut) * quarter;
      if (event.type === 'setTempo' && tick > 0) return null;
      if (!('channel' in event) || (isDrumless && event.channel === 9)) continue;
      if (at < -0.02 && event.type === 'noteOn') continue;
      if (at < SECONDS) timed.push({ at: Math.max(0, at + lead), event });
    }
  }
  const notes = timed.filter(({ event }) => event.type === 'noteOn');
  if (notes.length < 40) return null;
  timed.sort((a, b) => a.at - b.at);
  const track: MidiEvent[] = [{ deltaTime: 0, meta: true, type: 'setTempo', microsecondsPerBeat: 500_000 }];
  let now = 0;
  for (const { at, event } of timed) {
    const ms = Math.round(1000 * at);
    track.push({ ...event, deltaTime: ms - now });
    now = ms;
  }
  for (let channel = 0; channel < 16; channel++)
    track.push({
      deltaTime: channel ? 0 : Math.max(0, Math.round(1000 * (SECONDS + lead)) - now),
      type: 'controller',
      channel,
      controllerType: 123,
      value: 0,
    });
  track.push({ deltaTime: 0, meta: true, type: 'endOfTrack' });
  const perBeat = quarters === 6 ? 3 : 1;
  const length = SECONDS + lead;
  const [first, last] = [
    timed.find(({ event }) => event.type === 'noteOn')!.at,
    Math.max(...notes.map(({ at }) => at)),
  ];
  const at = (q: number): number => (q - cut) * quarter + lead;
  const all = Array.from({ length: bars * quarters }, (_, q) => q).filter(
    (q) => at(q) >= first - 0.03 && at(q) <= last + 0.03,
  );
  return {
    name,
    family: `groove: ${style.path.replace(/[0-9]/g, '')}`,
    bpm: 60 / quarter / perBeat,
    length,
    beats: all.filter((q) => q % perBeat === 0).map(at),
    downbeats: all.filter((q) => q % quarters === 0).map(at),
    midi: Buffer.from(writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: 500 }, tracks: [track] })),
  };
}
