import { randomUUID } from 'node:crypto';
import { Hono } from 'hono';
import * as z from 'zod';
import { textSchema } from '@core/time';
import { importPieceFile } from '../features/pieces/piece-transfer';
import { LOCAL, PIECE_ORDERS } from '../features/pieces/repository';
import type { PieceOrder } from '../features/pieces/repository';
import type { Thumbnails } from '../features/pieces/thumbnails';
import type { ServerContext } from '../jobs/context';
import { AppError } from '../platform/errors';
import { documentSchema, pieceFileResponse } from './documents';
import { validJson, validQuery } from './validate';

const revisionSchema = z.coerce.number().int().min(1).max(2_147_483_647);
const listSchema = z.object({
  search: textSchema(200).default(''),
  order: z.enum(Object.keys(PIECE_ORDERS) as [PieceOrder, ...PieceOrder[]]).default('changed'), // keys of the table
  offset: z.coerce.number().int().min(0).max(1_000_000).default(0),
  limit: z.coerce.number().int().min(1).max(200).default(60),
});
const saveNameSchema = z
  .string()
  .max(120)
  .regex(/^[\w-]+:\d+$/);
const saveSchema = z.object({
  piece: documentSchema,
  baseRevision: z.number().int().min(0).max(2_147_483_647),
  label: textSchema(200),
  saveId: saveNameSchema.nullable().default(null),
  follows: z.array(saveNameSchema).max(20).default([]),
});

export function pieceRoutes(context: ServerContext, thumbnails: Thumbnails) {
  const { pieces } = context;
  return new Hono()
    .get('/', validQuery(listSchema), async (c) => c.json(await pieces.list(LOCAL, c.req.valid('query'))))
    .post('/', validJson(z.object({ piece: documentSchema })), async (c) => {
      const { piece } = await pieces.create(LOCAL, c.req.valid('json').piece, 'New piece');
      return c.json(await pieces.summary(LOCAL, piece.id), 201);
    })
    .post('/import', async (c) => {
      const body = c.req.raw.body;
      if (!body) throw new AppError('NOT_A_PIECE_FILE');
      const { piece } = await importPieceFile(context, LOCAL, body, c.req.raw.signal);
      return c.json(await pieces.summary(LOCAL, piece.id), 201);
    })
    .get('/:id', async (c) => c.json(await pieces.get(LOCAL, c.req.param('id'))))
    .put('/:id', validJson(saveSchema), async (c) => {
      const { piece, baseRevision, label, saveId, follows } = c.req.valid('json');
      if (piece.id !== c.req.param('id')) throw new AppError('BAD_REQUEST', 'the id of the piece');
      const { revision, updatedAt } = await pieces.save(LOCAL, piece, { base: baseRevision, label, saveId, follows });
      return c.json({ revision, updatedAt });
    })
    .delete('/:id', async (c) => {
      await pieces.setDeleted(LOCAL, c.req.param('id'), true);
      return c.json({ ok: true });
    })
    .post('/:id/undelete', async (c) => {
      await pieces.setDeleted(LOCAL, c.req.param('id'), false);
      return c.json({ ok: true });
    })
    .post('/:id/rename', validJson(z.object({ name: textSchema(200).min(1) })), async (c) => {
      const { piece, revision } = await pieces.get(LOCAL, c.req.param('id'));
      const saved = await pieces.save(
        LOCAL,
        { ...piece, name: c.req.valid('json').name },
        { base: revision, label: 'Rename piece' },
      );
      return c.json({ revision: saved.revision });
    })
    .post('/:id/duplicate', async (c) => {
      const { piece } = await pieces.get(LOCAL, c.req.param('id'));
      const copy = await pieces.create(
        LOCAL,
        { ...piece, id: randomUUID(), name: `${piece.name} copy`.slice(0, 200) },
        'Duplicated',
      );
      await context.rosters.copy(LOCAL, piece.id, copy.piece.id);
      return c.json(await pieces.summary(LOCAL, copy.piece.id), 201);
    })
    .get('/:id/revisions', async (c) => c.json({ revisions: await pieces.revisions(LOCAL, c.req.param('id')) }))
    .get('/:id/revisions/:revision', async (c) => {
      const revision = revisionSchema.safeParse(c.req.param('revision'));
      if (!revision.success) throw new AppError('NOT_FOUND');
      return c.json({ piece: await pieces.revision(LOCAL, c.req.param('id'), revision.data) });
    })
    .post('/:id/revisions/:revision/restore', async (c) => {
      const revision = revisionSchema.safeParse(c.req.param('revision'));
      if (!revision.success) throw new AppError('NOT_FOUND');
      const restored = await pieces.restore(LOCAL, c.req.param('id'), revision.data);
      return c.json({ revision: restored.revision });
    })
    .get('/:id/file', async (c) => {
      const { piece } = await pieces.get(LOCAL, c.req.param('id'));
      return pieceFileResponse(c, context, piece);
    })
    .get('/:id/frame/:index', async (c) => {
      const png = await thumbnails.frame(await pieces.get(LOCAL, c.req.param('id')), c.req.param('index'));
      return c.body(png as Uint8Array<ArrayBuffer>, 200, {
        'content-type': 'image/png',
        'cache-control': 'private, max-age=31536000',
      });
    });
}
