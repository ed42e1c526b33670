import { expect, it } from '@jest/globals';
import { createRandom } from '../helpers/random';
import { openTestServer } from '../helpers/server';
import { rosterUnderKills } from './roster-run';

it('200 rows, the worker killed ten times: 200 files, none twice, none broken', async () => {
  const server = await openTestServer();
  try {
    const run = await rosterUnderKills(server, 200, 10, createRandom(Number(process.env.SIEGE_SEED ?? 200)));
    process.stdout.write(`roster: ${JSON.stringify(run)}\n`);
    expect(run).toMatchObject({ queued: 200, states: { succeeded: 200 }, files: 200, different: 200, broken: [] });
  } finally {
    await server.close();
  }
}, 1_200_000);
