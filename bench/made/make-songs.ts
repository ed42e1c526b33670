/**
 * Writes the made songs as sound and truth, in the form of the beat kit: npm run make:songs -- FOLDER.
 * With FluidSynth and a General MIDI soundfont (SOUNDFONT=, those of Debian are found) they sound as on a sampler, else, and
 * one in four anyway, by the demo's synthesiser.
 */
import { existsSync, writeFileSync } from 'node:fs';
import { toWav } from '../../demo/synth';
import { hashOf, styleSong } from './arrange';
import { madeCases } from './cases';
import type { MadeSong } from './notes';
import { namedSongFolder } from './song-folder';
import type { SongFolder } from './song-folder';
import { toMidi, toMix } from './sound';
import { playMidi, soundfonts as soundfontsHere } from './soundfonts';
import { STYLES } from './styles';

async function write(
  song: MadeSong,
  { wavOf, truthOf, writeTruth }: SongFolder,
  soundfonts: readonly string[],
): Promise<void> {
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
  const wav = wavOf(file);
  // What is there already is left; the folder is emptied by hand when styles change.
  if (existsSync(truthOf(file))) return;
  const choice = hashOf(file) % 8;
  const soundfont = soundfonts[choice < 5 ? 0 : 1] ?? soundfonts[0];
  if (song.noise || choice % 4 === 3 || !soundfont) writeFileSync(wav, toWav(toMix(song)));
  else await playMidi(toMidi(song), soundfont, wav);
  writeTruth(file, truth);
}

const songFolder = namedSongFolder();
const soundfonts = soundfontsHere();
const songs = [...STYLES.flatMap((style) => style.tempi.map((bpm) => styleSong(style, bpm, 0))), ...madeCases()];
for (let i = 0; i < songs.length; i += 2) {
  await Promise.all(songs.slice(i, i + 2).map((song) => write(song, songFolder, soundfonts)));
  if (i % 20 === 0) console.log(`${i} of ${songs.length}`);
}
console.log(`${songs.length} songs in ${songFolder.folder}, ${soundfonts.length} soundfonts`);
