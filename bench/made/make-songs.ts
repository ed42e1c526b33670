/**
 * Writes the made songs as sound and truth, in the form of the beat kit: npm run make:songs -- FOLDER.
 * With FluidSynth and a General MIDI soundfont (SOUNDFONT=, those of Debian are found) they sound as on a sampler, else, and
 * one in four anyway, by the demo's synthesiser.
 */
import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { toWav } from '../../demo/synth';
import { hashOf, styleSong } from './arrange';
import { madeCases } from './cases';
import type { MadeSong } from './notes';
import { toMidi, toMix } from './sound';
import { playMidi, soundfonts as soundfontsHere } from './soundfonts';
import { STYLES } from './styles';

async function write(song: MadeSong, folder: string, soundfonts: readonly string[]): Promise<void> {
  const file = song.name.replace(/[^a-z0-9.]+/gi, '_');
  const truth = {
    name: file,
    family: song.family,
    bpm: song.bpm,
    duration: song.length,
    flags: [],
    downbeatsTrusted: !song.isWithoutBars,
    beats: song.beats,
    downbeats: song.downbeats,
  };
  const wav = join(folder, 'wav', `${file}.wav`);
  // What is there already is left; the folder is emptied by hand when styles change.
  if (existsSync(join(folder, 'truth', `${file}.json`))) return;
  const choice = hashOf(file) % 8;
  const soundfont = soundfonts[choice < 5 ? 0 : 1] ?? soundfonts[0];
  if (song.noise || choice % 4 === 3 || !soundfont) writeFileSync(wav, toWav(toMix(song)));
  else await playMidi(toMidi(song), soundfont, wav);
  writeFileSync(join(folder, 'truth', `${file}.json`), JSON.stringify(truth));
}

const folder = process.argv[2];
if (!folder) throw new Error('say where the songs shall be written');
for (const part of ['wav', 'truth']) mkdirSync(join(folder, part), { recursive: true });
const soundfonts = soundfontsHere();
const songs = [...STYLES.flatMap((style) => style.tempi.map((bpm) => styleSong(style, bpm, 0))), ...madeCases()];
for (let i = 0; i < songs.length; i += 2) {
  await Promise.all(songs.slice(i, i + 2).map((song) => write(song, folder, soundfonts)));
  if (i % 20 === 0) console.log(`${i} of ${songs.length}`);
}
console.log(`${songs.length} songs in ${folder}, ${soundfonts.length} soundfonts`);
