import { Hono } from 'hono';
import * as z from 'zod';
import { destinationSchema } from '@core/formats';
import { LOCAL } from '../features/pieces/repository';
import type { ServerContext } from '../jobs/context';
import { AppError, TryLater } from '../platform/errors';
import { allowChannel } from '../sending/allowed-channels';
import { placesOf } from '../sending/channel';
import { validJson } from './validate';

const addressSchema = z.object({ address: destinationSchema.options[0].shape.address });

/** Where finished files can be sent. What an account is known by never leaves the server again. */
export function destinationRoutes({ destinations, config }: ServerContext) {
  return new Hono()
    .get('/', async (c) => {
      const list = await destinations.list(LOCAL.owner);
      return c.json({
        destinations: list.map(({ id, destination }) => ({
          ...{ id, kind: destination.kind, name: destination.name },
          where: destination.kind === 'folder' ? destination.folder : `${destination.place}, ${destination.address}`,
        })),
      });
    })
    .post('/', validJson(destinationSchema), async (c) => {
      const destination = c.req.valid('json');
      if (destination.kind === 'channel') allowChannel(config, destination.address);
      const { id } = await destinations.add(LOCAL.owner, destination);
      return c.json({ id }, 201);
    })
    .post('/look', validJson(addressSchema), async (c) => {
      const { address } = c.req.valid('json');
      allowChannel(config, address);
      try {
        return c.json(await placesOf(address));
      } catch (error) {
        throw error instanceof TryLater ? new AppError('SEND_FAILED', error.why, { cause: error }) : error;
      }
    })
    .delete('/:id', async (c) => {
      await destinations.remove(LOCAL.owner, c.req.param('id'));
      return c.json({ ok: true });
    });
}
