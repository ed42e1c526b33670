/**
 * Writes songs in the styles of Debian's package `mma` as sound and truth, in the form of the beat kit:
 * npm run make:grooves -- FOLDER. They are played by FluidSynth with the soundfonts of Debian.
 */
import { hashOf } from './arrange';
import { grooveSong, grooveStyles } from './grooves';
import type { GrooveStyle } from './grooves';
import { namedSongFolder } from './song-folder';
import { playMidi, soundfonts as soundfontsHere } from './soundfonts';

const { folder, wavOf, writeTruth } = namedSongFolder();
const soundfonts = soundfontsHere();

async function write(style: GrooveStyle): Promise<boolean> {
  const song = await grooveSong(style, folder);
  if (!song) return false;
  const { midi, ...known } = song;
  const soundfont = soundfonts[hashOf(song.name) % 3 === 0 ? 1 : 0] ?? soundfonts[0]!;
  await playMidi(midi, soundfont, wavOf(song.name));
  writeTruth(song.name, { ...known, flags: [], downbeatsTrusted: true });
  return true;
}

const styles = grooveStyles();
let count = 0;
for (let i = 0; i < styles.length; i += 2)
  for (const isWritten of await Promise.all(styles.slice(i, i + 2).map(write))) count += Number(isWritten);
console.log(`${count} of ${styles.length} styles in ${folder}`);
