import { expect, it } from '@jest/globals';
import { migrate, openDatabase } from '../../server/db/data-source';
import { openTestServer } from '../helpers/server';

it('data that a later version has changed is refused, and left as it is', async () => {
  const server = await openTestServer();
  const source = await openDatabase(server.config.databaseUrl);
  try {
    await source.query(`INSERT INTO migrations (timestamp, name) VALUES (9900000000000, 'Later9900000000000')`);
    await expect(migrate(source)).rejects.toMatchObject({ code: 'DATA_NEWER' });
    await expect(migrate(source)).rejects.toThrow(/newer Estrella \(Later9900000000000\).*--data/);
    await source.query(`DELETE FROM migrations WHERE name = 'Later9900000000000'`);
    await migrate(source);
  } finally {
    await source.destroy();
    await server.close();
  }
});
