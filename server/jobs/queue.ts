import PgBoss from 'pg-boss';
import { LANES } from '../db/entities';
import type { JobRow, Lane } from '../db/entities';
import type { JobRepository } from '../features/jobs/repository';

/** pg-boss over the same PostgreSQL. Its rows only carry the job's id: all that people see is in the job table. */
export interface JobQueue {
  enqueue(job: Pick<JobRow, 'id' | 'lane'> & { readonly dueAt?: Date | null }): Promise<void>;
  /** Many at once. Should the process end in mid-way, those that have no place yet are found and given one. */
  enqueueAll(jobs: readonly Pick<JobRow, 'id' | 'lane'>[]): Promise<void>;
  work(lane: Lane, run: () => Promise<unknown>): Promise<void>;
  stop(): Promise<void>;
}

const INSERTED_AT_ONCE = 500;

export async function openQueue(
  databaseUrl: string,
  jobs: JobRepository,
  onError: (error: Error) => void,
): Promise<JobQueue> {
  const boss = new PgBoss({ connectionString: databaseUrl, schema: 'queue', max: 4 });
  boss.on('error', onError);
  await boss.start();
  // A lost worker is noticed by our own signs of life, so the queue itself neither expires nor retries.
  for (const name of LANES)
    await boss.createQueue(name, { name, policy: 'standard', retryLimit: 0, expireInSeconds: 6 * 3600 });
  return {
    async enqueue({ id, lane, dueAt }) {
      const queueId = await boss.send(lane, { jobId: id }, dueAt ? { startAfter: dueAt } : {});
      if (queueId) await jobs.setQueueId(id, queueId);
    },
    async enqueueAll(list) {
      for (let from = 0; from < list.length; from += INSERTED_AT_ONCE)
        await boss.insert(
          list.slice(from, from + INSERTED_AT_ONCE).map(({ id, lane }) => ({ name: lane, data: { jobId: id } })),
        );
    },
    async work(lane, run) {
      await boss.work<{ jobId: string }>(lane, { batchSize: 1, pollingIntervalSeconds: 0.5 }, async (batch) => {
        for (const _ of batch) await run();
      });
    },
    stop: () => boss.stop({ graceful: false, wait: true, timeout: 3000 }),
  };
}
