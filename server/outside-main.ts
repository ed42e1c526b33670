import { mkdirSync } from 'node:fs';
import { resolve } from 'node:path';
import { serve } from '@hono/node-server';
import * as z from 'zod';
import { createOutside } from './outside/outside';

/** `estrella-outside`: a stand-in for the places that finished files are sent to. */
const environment = z.object({
  ESTRELLA_OUTSIDE_PORT: z.coerce.number().int().min(0).max(65535).default(4180),
  ESTRELLA_OUTSIDE_DATA: z.string().min(1).default('.data-outside'),
});

const read = environment.safeParse(process.env);
if (!read.success) {
  console.error(read.error.issues.map((issue) => `${issue.path.join('.')}: ${issue.message}`).join('; '));
  process.exit(2);
}
const data = resolve(read.data.ESTRELLA_OUTSIDE_DATA);
mkdirSync(data, { recursive: true });
const server = serve(
  { fetch: createOutside(data).fetch, port: read.data.ESTRELLA_OUTSIDE_PORT, hostname: '127.0.0.1' },
  (info) => {
    if (process.send) process.send({ listening: info.port });
    console.log(`The places outside are at http://127.0.0.1:${info.port}`);
  },
);
server.on('error', (error: Error) => {
  console.error(error.message);
  process.exit(1);
});
process.on('SIGTERM', () => process.exit(0));
process.on('SIGINT', () => process.exit(0));
process.on('disconnect', () => process.exit(0));
