import PgBoss from 'pg-boss';
import type { JobKind } from '../db/entities';
import type { JobRepository } from '../features/jobs/repository';

/** pg-boss over the same PostgreSQL. Its rows only carry the job's id: all that people see is in the job table. */
export interface JobQueue {
  enqueue(kind: JobKind, jobId: string): Promise<void>;
  work(kind: JobKind, run: (jobId: string) => Promise<void>): Promise<void>;
  stop(): Promise<void>;
}

const KINDS: readonly JobKind[] = ['prepare', 'export'];

export async function openQueue(databaseUrl: string, jobs: JobRepository, onError: (error: Error) => void): Promise<JobQueue> {
  const boss = new PgBoss({ connectionString: databaseUrl, schema: 'queue', max: 4 });
  boss.on('error', onError);
  await boss.start();
  // A dead worker is noticed by our own heartbeat, so the queue itself neither expires nor retries.
  for (const name of KINDS) await boss.createQueue(name, { name, policy: 'standard', retryLimit: 0, expireInSeconds: 6 * 3600 });
  return {
    async enqueue(kind, jobId) {
      const queueId = await boss.send(kind, { jobId });
      if (queueId) await jobs.setQueueId(jobId, queueId);
    },
    async work(kind, run) {
      await boss.work<{ jobId: string }>(kind, { batchSize: 1, pollingIntervalSeconds: 0.5 }, async (batch) => {
        for (const job of batch) await run(job.data.jobId);
      });
    },
    stop: () => boss.stop({ graceful: false, wait: true, timeout: 3000 }),
  };
}
