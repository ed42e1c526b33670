import { execFile } from 'node:child_process';
import { existsSync, rmSync, writeFileSync } from 'node:fs';
import { promisify } from 'node:util';

const run = promisify(execFile);
const DEBIAN = ['/usr/share/sounds/sf2/FluidR3_GM.sf2', '/usr/share/sounds/sf2/TimGM6mb.sf2'];

/** General MIDI soundfonts: those that SOUNDFONT names, else those of Debian, as far as they are there. */
export const soundfonts = (): string[] =>
  (process.env['SOUNDFONT']?.split(':') ?? DEBIAN).filter((path) => existsSync(path));

/** Has FluidSynth play a MIDI file. */
export async function playMidi(midi: Buffer, soundfont: string, wav: string): Promise<void> {
  const score = `${wav}.mid`;
  writeFileSync(score, midi);
  await run('fluidsynth', ['-ni', '-g', '0.5', '-r', '44100', '-F', wav, soundfont, score], { timeout: 120_000 });
  rmSync(score);
}
