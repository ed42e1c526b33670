/**
 * Writes songs in the styles of Debian's package `mma` as sound and truth, in the form of the beat kit:
 * npm run make:grooves -- FOLDER. They are played by FluidSynth with the soundfonts of Debian.
 */
import { execFile } from 'node:child_process';
import { existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { hashOf } from './arrange';
import { grooveSong, grooveStyles } from './grooves';
import type { GrooveStyle } from './grooves';

const run = promisify(execFile);
const SOUNDFONTS = ['/usr/share/sounds/sf2/FluidR3_GM.sf2', '/usr/share/sounds/sf2/TimGM6mb.sf2'];

const folder = process.argv[2];
if (!folder) throw new Error('say where the songs shall be written');
for (const part of ['wav', 'truth']) mkdirSync(join(folder, part), { recursive: true });
const soundfonts = SOUNDFONTS.filter((path) => existsSync(path));

async function write(style: GrooveStyle): Promise<boolean> {
  const song = await grooveSong(style, folder!);
  if (!song) return false;
  const { midi, ...known } = song;
  const score = join(folder!, `${song.name}.mid`);
  writeFileSync(score, midi);
  const soundfont = soundfonts[hashOf(song.name) % 3 === 0 ? 1 : 0] ?? soundfonts[0]!;
  const wav = join(folder!, 'wav', `${song.name}.wav`);
  await run('fluidsynth', ['-ni', '-g', '0.5', '-r', '44100', '-F', wav, soundfont, score], { timeout: 120_000 });
  rmSync(score);
  writeFileSync(
    join(folder!, 'truth', `${song.name}.json`),
    JSON.stringify({ ...known, flags: [], downbeatsTrusted: true }),
  );
  return true;
}

const styles = grooveStyles();
let count = 0;
for (let i = 0; i < styles.length; i += 2)
  for (const isWritten of await Promise.all(styles.slice(i, i + 2).map(write))) count += Number(isWritten);
console.log(`${count} of ${styles.length} styles in ${folder}`);
