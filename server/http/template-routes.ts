import { Hono } from 'hono';
import * as z from 'zod';
import { parsePiece } from '@core/piece';
import type { Piece } from '@core/piece';
import type { Kept } from '../features/kept/repository';
import { takePieceFile } from '../features/pieces/piece-transfer';
import { LOCAL } from '../features/pieces/repository';
import type { ServerContext } from '../jobs/context';
import { AppError } from '../platform/errors';
import { documentSchema, pieceFileResponse } from './documents';
import { validJson } from './validate';

/** The template as it is kept: its id and version are those of the row. Null if it does not fit any more. */
function templateIn({ id, name, version, body }: Kept): Piece | null {
  const parsed = parsePiece(body);
  if (!parsed.ok || !parsed.piece.template) return null;
  return { ...parsed.piece, id, name, template: { ...parsed.piece.template, version } };
}

/** Templates kept for all pieces: documents that are templates, each under its name. */
export function templateRoutes(context: ServerContext) {
  const { kept } = context;
  const keep = async (piece: Piece): Promise<{ id: string; version: number }> => {
    if (!piece.template) throw new AppError('NO_TEMPLATE', piece.name);
    const name = piece.name.trim().slice(0, 80) || 'Template';
    const { id, version } = await kept.keep(LOCAL.owner, 'template', name, { ...piece });
    return { id, version };
  };
  return new Hono()
    .get('/', async (c) => {
      const rows = await kept.list(LOCAL.owner, 'template');
      // What does not fit any more is left out, not handed on.
      const templates: unknown[] = rows.flatMap((row) => templateIn(row) ?? []);
      return c.json({ templates });
    })
    .post('/', validJson(z.object({ piece: documentSchema })), async (c) =>
      c.json(await keep(c.req.valid('json').piece), 201),
    )
    .post('/import', async (c) => {
      const { body } = c.req.raw;
      if (!body) throw new AppError('NOT_A_PIECE_FILE');
      const { piece } = await takePieceFile(context, LOCAL, body, c.req.raw.signal);
      return c.json(await keep(piece), 201);
    })
    .get('/:id/file', async (c) => {
      const row = (await kept.list(LOCAL.owner, 'template')).find(({ id }) => id === c.req.param('id'));
      const template = row && templateIn(row);
      if (!template) throw new AppError('NOT_FOUND');
      return pieceFileResponse(c, context, template);
    })
    .delete('/:id', async (c) => {
      await kept.forget(LOCAL.owner, 'template', c.req.param('id'));
      return c.json({ ok: true });
    });
}
