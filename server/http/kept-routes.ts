import { Hono } from 'hono';
import * as z from 'zod';
import { keptNameSchema, keptWardrobeSchema } from '@core/piece';
import { LOCAL } from '../features/pieces/repository';
import type { ServerContext } from '../jobs/context';
import { validJson } from './validate';

/** Wardrobes kept for all pieces. */
export function keptRoutes({ kept }: ServerContext) {
  return new Hono()
    .get('/wardrobes', async (c) => {
      const rows = await kept.list(LOCAL.owner, 'wardrobe');
      // What does not fit any more is left out, not handed on.
      const wardrobes = rows.flatMap(({ id, name, version, body }) => {
        const read = keptWardrobeSchema.safeParse(body);
        return read.success ? [{ id, name, version, body: read.data }] : [];
      });
      return c.json({ wardrobes });
    })
    .post('/wardrobes', validJson(z.object({ name: keptNameSchema, body: keptWardrobeSchema })), async (c) => {
      const { name, body } = c.req.valid('json');
      const { id, version } = await kept.keep(LOCAL.owner, 'wardrobe', name, body);
      return c.json({ id, version }, 201);
    })
    .delete('/wardrobes/:id', async (c) => {
      await kept.forget(LOCAL.owner, 'wardrobe', c.req.param('id'));
      return c.json({ ok: true });
    });
}
