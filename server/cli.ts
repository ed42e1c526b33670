import { resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { ANALYSIS_RATE, analyseSong } from '@core/audio';
import { UsageError } from './cli-usage';
import { AUDIO_DEMUXERS, demuxerFor, mimeTypeOf } from './features/media/demuxers';
import { decodeMono, openAs } from './platform/ffmpeg';
import { MAX_SONG_SECONDS } from './platform/limits';
import { readHead } from './platform/read-head';

/** Frames that one command paints. */
const MAX_FRAMES = 1000;

const USAGE = `usage: estrella beats SONG [--json]
       estrella render PIECE --format ID --out FILE [--kind KIND] [--at SECONDS]
                            [--from SECONDS] [--to SECONDS] [--loudness LUFS] [--size MB]
       estrella check PIECE [--json]
       estrella frame PIECE --at SECONDS[,SECONDS…] [--format ID] --out FILE.png`;

async function beats(song: string, asJson: boolean): Promise<void> {
  const demuxer = demuxerFor(AUDIO_DEMUXERS, await mimeTypeOf(await readHead(song)));
  if (!demuxer) throw new Error(`${song} has no sound that can be read`);
  const samples = await decodeMono(openAs(demuxer, song), ANALYSIS_RATE, {
    maxSeconds: MAX_SONG_SECONDS,
    limitMs: 600_000,
  });
  const analysis = analyseSong(samples);
  const round = (t: number) => Math.round(t * 1e5) / 1e5;
  const out = {
    bpm: Math.round(analysis.bpm * 1000) / 1000,
    beats: analysis.beats.map(round),
    downbeats: analysis.downbeats.map(round),
    beatsPerBar: analysis.beatsPerBar,
    duration: round(analysis.duration),
    confidence: analysis.confidence,
    hits: analysis.hits.map((h) => ({ ...h, time: round(h.time), strength: Math.round(h.strength * 1000) / 1000 })),
  };
  // People get the facts a line each; programs get one object.
  console.log(
    asJson || !process.stdout.isTTY
      ? JSON.stringify(out)
      : `${out.bpm} BPM, ${out.beatsPerBar} beats a bar, ${out.beats.length} beats, first downbeat at ${out.downbeats[0] ?? '–'} s`,
  );
}

const COMMANDS = ['beats', 'render', 'frame', 'check'] as const;
const isCommand = (word: string | undefined): word is (typeof COMMANDS)[number] =>
  COMMANDS.some((command) => command === word);

async function main(): Promise<void> {
  let parsed;
  try {
    parsed = parseArgs({
      allowPositionals: true,
      options: {
        json: { type: 'boolean', default: false },
        format: { type: 'string' },
        out: { type: 'string' },
        kind: { type: 'string' },
        at: { type: 'string' },
        from: { type: 'string' },
        to: { type: 'string' },
        loudness: { type: 'string' },
        size: { type: 'string' },
        help: { type: 'boolean', short: 'h', default: false },
      },
    });
  } catch (error) {
    throw new UsageError(error instanceof Error ? error.message : String(error));
  }
  const { values, positionals } = parsed;
  const [command, file, ...rest] = positionals;
  if (values.help) return console.log(USAGE);
  if (!isCommand(command))
    throw new UsageError(command ? `unknown command ${command}` : `no command; try ${COMMANDS.join(', ')} or --help`);
  if (!file || rest.length > 0) throw new UsageError(`${command} takes one file`);
  if (command === 'beats') return beats(resolve(file), values.json);
  // Rendering brings most of the program with it, which beats does without.
  const { check, frames, render } = await import('./cli-render');
  if (command === 'check') {
    if (await check(resolve(file), values.json)) process.exitCode = 1;
    return;
  }
  if (!values.out) throw new UsageError(`${command} needs --out FILE`);
  const times = (values.at ?? '0').split(',').map(Number);
  if (!times.every(Number.isFinite) || times.length > MAX_FRAMES)
    throw new UsageError(`--at takes seconds, up to ${MAX_FRAMES} of them with commas between`);
  if (command === 'frame') {
    if (values.at === undefined) throw new UsageError('frame needs --at SECONDS');
    return frames(resolve(file), times, values.format, resolve(values.out));
  }
  const [at = 0, ...more] = times;
  if (more.length > 0) throw new UsageError('render shows one moment: --at takes one number of seconds');
  return render(resolve(file), values.format, resolve(values.out), at, values.kind, values);
}

// The decoder of WOFF2 fonts keeps a process alive.
main().then(
  () => process.exit(),
  (error: unknown) => {
    const line = (error instanceof Error ? error.message : String(error)).split('\n')[0];
    console.error(`estrella: ${line}`);
    process.exit(error instanceof UsageError ? 2 : 1);
  },
);
