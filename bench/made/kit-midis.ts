import { createHash } from 'node:crypto';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

/** Lumps of a WAD file (a folder in one file) that are MIDI files. */
function wadMidis(wad: Buffer): Buffer[] {
  const [count, directory] = [wad.readInt32LE(4), wad.readInt32LE(8)];
  return Array.from({ length: count }, (_, i) => {
    const entry = directory + 16 * i;
    const from = wad.readInt32LE(entry);
    return wad.subarray(from, from + wad.readInt32LE(entry + 4));
  }).filter((lump) => lump.subarray(0, 4).toString('latin1') === 'MThd');
}

/** MIDI files of the packages that the beat kit has unpacked, by what the kit's truth calls `midi`. */
export function kitMidis(kit: string): Map<string, Buffer> {
  const out = new Map<string, Buffer>();
  const source = join(kit, 'src');
  for (const name of readdirSync(source, { recursive: true, encoding: 'utf8' })) {
    const isWad = /\.wad$/i.test(name);
    if (!isWad && !/\.midi?$/i.test(name)) continue;
    const data = readFileSync(join(source, name));
    for (const midi of isWad ? wadMidis(data) : [data])
      out.set(createHash('sha256').update(midi).digest('hex').slice(0, 16), midi);
  }
  return out;
}
