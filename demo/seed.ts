import { Readable } from 'node:stream';
import { pieceSchema } from '@core/piece';
import type { MediaRef, Piece } from '@core/piece';
import { importMedia, mediaRef } from '../server/features/media/import-media';
import { LOCAL } from '../server/features/pieces/repository';
import type { ServerContext } from '../server/jobs/context';
import { logoIntro } from './logo-intro';
import { kiteMakersQuote, openingTitle } from './pieces';
import { makeDemoSongs } from './songs';

/** The pieces of the demo by the song they are cut to. */
export const DEMO_PIECES: readonly { songId: string; make: (media: MediaRef) => Piece }[] = [
  { songId: 'salt-and-string', make: openingTitle },
  { songId: 'harbour-lamps', make: kiteMakersQuote },
  { songId: 'salt-and-string', make: logoIntro },
];

/** Puts the demo into a database that has never had it; a demo piece that someone deleted stays deleted. */
export async function seedDemo(context: ServerContext): Promise<void> {
  const [{ count }] = (await context.source.query(
    `SELECT count(*)::int AS count FROM piece WHERE id LIKE 'demo-%'`,
  )) as [{ count: number }];
  if (count > 0) return;
  const media = new Map<string, MediaRef>();
  for (const song of makeDemoSongs()) {
    const record = await importMedia(context, LOCAL.owner, Readable.from([song.wav]), `${song.title}.wav`);
    media.set(song.id, { ...mediaRef(record), id: song.id });
  }
  for (const { songId, make } of [...DEMO_PIECES].reverse()) {
    const ref = media.get(songId);
    if (!ref) throw new Error(`the demo has no song ${songId}`);
    await context.pieces.create(LOCAL, pieceSchema.parse(make(ref)), 'Demo');
  }
  context.log.info('the demo is in place');
}
