import { expect, it } from '@jest/globals';
import { createRandom } from '../helpers/random';
import { openTestServer } from '../helpers/server';
import { queueUnderKills } from './queue-run';

it('fifty renders of three pieces, workers killed at random: none lost, none twice, none broken', async () => {
  const server = await openTestServer();
  try {
    const run = await queueUnderKills(server, 50, 20, createRandom(Number(process.env.SIEGE_SEED ?? 50)));
    process.stdout.write(`queue: ${JSON.stringify(run)}\n`);
    expect(run).toMatchObject({ states: { succeeded: 50 }, files: 50, broken: [], partsLeft: 0 });
  } finally {
    await server.close();
  }
}, 1_200_000);
