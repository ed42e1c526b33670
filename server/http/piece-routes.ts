import { randomUUID } from 'node:crypto';
import { Hono } from 'hono';
import { z } from 'zod';
import { pieceSchema, resolveTimes } from '@core/piece';
import type { Piece } from '@core/piece';
import { exportPieceFile, importPieceFile } from '../features/pieces/piece-transfer';
import type { PieceRecord } from '../features/pieces/repository';
import { createThumbnails } from '../features/pieces/thumbnails';
import type { ServerContext } from '../jobs/context';
import { AppError } from '../platform/errors';
import { validJson } from './validate';

const MAX_PIECE_FILE = 1_500_000_000;

export function pieceRoutes(context: ServerContext) {
  const { pieces } = context;
  const thumbnails = createThumbnails(context);

  const analysisOf = async (piece: Piece) => {
    const song = piece.media.find((m) => m.id === piece.music?.mediaId);
    return song ? context.media.analysis(song.hash).catch(() => null) : null;
  };
  /** What the home shows of a piece: enough for a card, not the document. */
  const summary = async ({ piece, revision, updatedAt }: PieceRecord) => {
    const times = resolveTimes(piece, await analysisOf(piece));
    const beats: number[] = [];
    for (const [i, t] of times.grid.beats.entries()) if (t >= 0 && t < times.end && beats.length < 400) beats.push((i - times.grid.origin) % (times.grid.meters[0]?.beatsPerBar ?? 4) === 0 ? t : -t);
    return { id: piece.id, name: piece.name, revision, updatedAt, formats: piece.formats, leadFormatId: piece.leadFormatId, duration: times.end, layers: piece.layers.length, beats, frameRate: piece.frameRate };
  };

  return new Hono()
    .get('/', async (c) => c.json({ pieces: await Promise.all((await pieces.list()).map(summary)) }))
    .post('/', validJson(z.object({ piece: pieceSchema })), async (c) => c.json(await summary(await pieces.create(c.req.valid('json').piece, 'New piece')), 201))
    .post('/import', async (c) => {
      const bytes = new Uint8Array(await c.req.arrayBuffer());
      if (bytes.length > MAX_PIECE_FILE) throw new AppError('PIECE_FILE_TOO_LARGE');
      if (bytes.length === 0) throw new AppError('NOT_A_PIECE_FILE');
      return c.json(await summary(await importPieceFile(context, bytes)), 201);
    })
    .get('/:id', async (c) => c.json(await pieces.get(c.req.param('id'))))
    .put('/:id', validJson(z.object({ piece: pieceSchema, baseRevision: z.number().int(), label: z.string().max(200) })), async (c) => {
      const { piece, baseRevision, label } = c.req.valid('json');
      if (piece.id !== c.req.param('id')) throw new AppError('BAD_REQUEST', 'the id of the piece');
      const { revision, updatedAt } = await pieces.save(piece, baseRevision, label);
      return c.json({ revision, updatedAt });
    })
    .delete('/:id', async (c) => {
      await pieces.setDeleted(c.req.param('id'), true);
      return c.json({ ok: true });
    })
    .post('/:id/undelete', async (c) => {
      await pieces.setDeleted(c.req.param('id'), false);
      return c.json({ ok: true });
    })
    .post('/:id/rename', validJson(z.object({ name: z.string().min(1).max(200) })), async (c) => {
      const { piece, revision } = await pieces.get(c.req.param('id'));
      const saved = await pieces.save({ ...piece, name: c.req.valid('json').name }, revision, 'Rename the piece');
      return c.json({ revision: saved.revision });
    })
    .post('/:id/duplicate', async (c) => {
      const { piece } = await pieces.get(c.req.param('id'));
      return c.json(await summary(await pieces.create({ ...piece, id: randomUUID(), name: `${piece.name} copy`.slice(0, 200) }, 'Duplicated')), 201);
    })
    .get('/:id/revisions', async (c) => c.json({ revisions: await pieces.revisions(c.req.param('id')) }))
    .get('/:id/revisions/:revision', async (c) => c.json({ piece: await pieces.revision(c.req.param('id'), Number(c.req.param('revision'))) }))
    .get('/:id/file', async (c) => {
      const { piece } = await pieces.get(c.req.param('id'));
      const bytes = await exportPieceFile(context, piece);
      const name = piece.name.replace(/[^\p{L}\p{N} _-]/gu, '').trim() || 'piece';
      return c.body(bytes as Uint8Array<ArrayBuffer>, 200, { 'content-type': 'application/zip', 'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}.estrella` });
    })
    .get('/:id/frame/:index', async (c) => {
      const png = await thumbnails.frame(await pieces.get(c.req.param('id')), Number(c.req.param('index')));
      return c.body(png as Uint8Array<ArrayBuffer>, 200, { 'content-type': 'image/png', 'cache-control': 'private, max-age=31536000' });
    });
}
