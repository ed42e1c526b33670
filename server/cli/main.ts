import { resolve } from 'node:path';
import { Command, CommanderError } from 'commander';
import { UsageError, numberOf } from './usage';

/** Frames that one command paints. */
const MAX_FRAMES = 1000;

const EXIT_CODES = `
Exit codes: 0 done, 1 failed or something was found wrong, 2 typed wrongly.
Progress is written to stderr, results to stdout.`;

/** Seconds with commas between. @throws UsageError. */
function timesOf(typed: string): number[] {
  const times = typed.split(',').map(Number);
  if (typed.trim() === '' || !times.every(Number.isFinite) || times.length > MAX_FRAMES)
    throw new UsageError(`--at takes seconds, up to ${MAX_FRAMES} of them with commas between`);
  return times;
}

/** @throws UsageError. */
function needed(option: string, value: unknown): string {
  if (typeof value !== 'string') throw new UsageError(`${option} is missing`);
  return value;
}

interface Typed {
  readonly json?: boolean;
  readonly format?: string;
  readonly out?: string;
  /** True where no kind stands behind the option. */
  readonly kind?: string | true;
  readonly at?: string;
  readonly from?: string;
  readonly to?: string;
  readonly loudness?: string;
  readonly size?: string;
  readonly template?: string;
  readonly piece?: string;
  readonly names?: string;
}

/** Adds the commands that read songs and pieces. Rendering brings most of the program with it: loaded when it is needed. */
function addPieceCommands(program: Command): void {
  program
    .command('beats <song>')
    .description('tempo, beats, downbeats and hits of a song')
    .option('--json', 'print one JSON object (the default where stdout is no terminal)')
    .action(async (song: string, { json = false }: Typed) => (await import('./beats')).beats(resolve(song), json));
  program
    .command('render [piece]')
    .description('export a project file; --kind alone lists the kinds')
    .option('--out <file>', 'file to write; its ending chooses the kind')
    .option('--kind [kind]', 'kind of file; without a kind lists them')
    .option('--format <id>', 'frame size of the piece (default: the lead format)')
    .option('--at <seconds>', 'moment, for stills')
    .option('--from <seconds>', 'start of the range')
    .option('--to <seconds>', 'end of the range')
    .option('--loudness <lufs>', 'loudness of the sound')
    .option('--size <megabytes>', 'maximum size of the file')
    .option('--json', 'print one JSON object')
    .action(async (piece: string | undefined, typed: Typed) => {
      const { kind, at, json = false, from, to, loudness, size, format } = typed;
      const part = await import('./render');
      if (kind === true) return part.kinds(json);
      if (piece === undefined) throw new UsageError('render takes one project file');
      const out = resolve(needed('--out FILE', typed.out));
      const range = { from, to, loudness, size };
      return part.render(resolve(piece), {
        ...range,
        format,
        out,
        kind,
        at: at === undefined ? 0 : numberOf('--at', at),
        json,
      });
    });
  program
    .command('frame <piece>')
    .description('write frames of a project file as PNG')
    .option('--at <seconds>', 'moments, with commas between')
    .option('--out <file>', 'PNG file; of several moments numbered files')
    .option('--format <id>', 'frame size of the piece (default: the lead format)')
    .action(async (piece: string, { at, out, format }: Typed) => {
      const times = timesOf(needed('--at SECONDS', at));
      return (await import('./render')).frames(resolve(piece), times, format, resolve(needed('--out FILE', out)));
    });
  program
    .command('check <piece>')
    .description('the run-through of a project file')
    .option('--json', 'print one JSON object')
    .action(async (piece: string, { json = false }: Typed) => {
      if (await (await import('./render')).check(resolve(piece), json)) process.exitCode = 1;
    });
  program
    .command('captions <piece>')
    .description('write the captions of a project file as SRT or WebVTT')
    .option('--out <file>', 'file that ends in .srt or .vtt')
    .option('--json', 'print one JSON object')
    .action(async (piece: string, { out, json = false }: Typed) => {
      const file = resolve(needed('--out FILE', out));
      if (!/\.(srt|vtt)$/i.test(file)) throw new UsageError(`--out must end in .srt or .vtt; got ${out ?? ''}`);
      return (await import('./render')).render(resolve(piece), { out: file, at: 0, json });
    });
}

/** Adds the commands that make project files and films of other files. */
function addMakingCommands(program: Command): void {
  program
    .command('templates')
    .description('list the templates and their slots')
    .option('--json', 'print one JSON object')
    .action(async ({ json = false }: Typed) => (await import('./project-files')).templates(json));
  program
    .command('roster <table>')
    .description('export one file for each row of a CSV table, filled into a template')
    .option('--template <name>', 'template to fill')
    .option('--out <dir>', 'folder for the files')
    .option('--piece <file>', 'project file whose formats, wardrobe and pictures are used')
    .option('--format <id>', 'frame size (default: the lead format)')
    .option('--kind <kind>', 'kind of file', 'mp4')
    .option('--names <pattern>', 'file names, with slot names in braces', '{row} {Name}')
    .option('--json', 'print one JSON object')
    .action(async (table: string, typed: Typed & { kind: string; names: string }) => {
      const { template, out, piece, format, kind, names, json = false } = typed;
      const isWhole = await (
        await import('./roster')
      ).roster(resolve(table), {
        template: needed('--template NAME', template),
        out: resolve(needed('--out DIR', out)),
        piece: piece === undefined ? undefined : resolve(piece),
        ...{ format, kind, names, json },
      });
      if (!isWhole) process.exitCode = 1;
    });
  program
    .command('svg <file>')
    .description('turn an SVG file into a project with its shapes as layers, and list what is missing')
    .option('--out <file>', 'project file to write')
    .option('--json', 'print one JSON object')
    .action(async (file: string, { out, json = false }: Typed) =>
      (await import('./project-files')).svg(resolve(file), out === undefined ? undefined : resolve(out), json),
    );
  program
    .command('convert <piece>')
    .description('save a project file of an earlier version as the present one')
    .option('--out <file>', 'project file to write')
    .option('--json', 'print one JSON object')
    .action(async (piece: string, { out, json = false }: Typed) =>
      (await import('./project-files')).convert(resolve(piece), resolve(needed('--out FILE', out)), json),
    );
}

async function main(): Promise<void> {
  const program = new Command('estrella')
    .description('Estrella by command: everything that needs no eye')
    .exitOverride()
    .addHelpText('afterAll', EXIT_CODES)
    .allowExcessArguments(false)
    // What is wrong is said below, in one line.
    .configureOutput({ writeErr: () => {} });
  addPieceCommands(program);
  addMakingCommands(program);
  if (process.argv.length <= 2) throw new UsageError(`no command; estrella --help lists them`);
  await program.parseAsync();
}

const isUsage = (error: unknown): boolean => error instanceof UsageError || error instanceof CommanderError;

// The decoder of WOFF2 fonts keeps a process alive.
main().then(
  () => process.exit(),
  (error: unknown) => {
    if (error instanceof CommanderError && error.exitCode === 0) process.exit(0);
    const line = (error instanceof Error ? error.message : String(error)).split('\n')[0]?.replace(/^error: /, '');
    console.error(`estrella: ${line}`);
    process.exit(isUsage(error) ? 2 : 1);
  },
);
