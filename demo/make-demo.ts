import { createHash } from 'node:crypto';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { createWriteStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { packPiece } from '../server/features/pieces/piece-archive';
import { FOOTAGE_FILE, makeFootage } from './footage';
import { makeDemoSongs } from './songs';
import { DEMO_PIECES } from './seed';

/**
 * Writes the demo's songs, their true beats, its footage and its pieces as files: for the command line, the tests and the benchmark.
 */
async function main(): Promise<void> {
  const dir = process.argv[2];
  if (!dir) throw new Error('usage: make-demo DIR');
  await mkdir(dir, { recursive: true });
  makeFootage(join(dir, FOOTAGE_FILE));
  for (const song of makeDemoSongs()) {
    const { wav, ...truth } = song;
    await writeFile(join(dir, `${song.id}.wav`), wav);
    await writeFile(join(dir, `${song.id}.truth.json`), JSON.stringify(truth));
    const hash = createHash('sha256').update(wav).digest('hex');
    for (const { songId, make } of DEMO_PIECES) {
      if (songId !== song.id) continue;
      const piece = make({
        id: song.id,
        hash,
        kind: 'audio',
        name: `${song.title}.wav`,
        duration: (wav.length - 44) / 4 / 44100,
      });
      const packed = await packPiece({
        piece,
        media: new Map([[hash, join(dir, `${song.id}.wav`)]]),
        analyses: new Map(),
      });
      await pipeline(packed, createWriteStream(join(dir, `${piece.id}.estrella`)));
    }
  }
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
