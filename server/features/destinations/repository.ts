import { randomUUID } from 'node:crypto';
import type { DataSource } from 'typeorm';
import { destinationSchema } from '@core/formats';
import type { Destination } from '@core/formats';
import { DestinationEntity } from '../../db/entities';
import { AppError } from '../../platform/errors';
import { isUuid } from '../../platform/uuid';

/** Most destinations that somebody has. */
const MOST = 100;

export interface StoredDestination {
  readonly id: string;
  readonly destination: Destination;
}

export interface DestinationRepository {
  /** By name. */
  list(owner: string): Promise<StoredDestination[]>;
  /** @throws AppError KEPT_FULL. */
  add(owner: string, destination: Destination): Promise<StoredDestination>;
  /** @throws AppError NOT_FOUND. */
  get(owner: string, id: string): Promise<Destination>;
  remove(owner: string, id: string): Promise<void>;
}

export function createDestinationRepository(source: DataSource): DestinationRepository {
  const rows = source.getRepository(DestinationEntity);
  return {
    async list(owner) {
      const found = await rows.find({ where: { owner }, take: MOST });
      return found
        .flatMap(({ id, body }): StoredDestination[] => {
          const read = destinationSchema.safeParse(body); // what does not fit any more is left out
          return read.success ? [{ id, destination: read.data }] : [];
        })
        .sort((p, q) => p.destination.name.localeCompare(q.destination.name));
    },
    async add(owner, destination) {
      if ((await rows.countBy({ owner })) >= MOST) throw new AppError('KEPT_FULL', `${MOST} destinations`);
      const id = randomUUID();
      await rows.insert({ id, owner, body: destination } as object);
      return { id, destination };
    },
    async get(owner, id) {
      const row = isUuid(id) ? await rows.findOneBy({ id, owner }) : null;
      const read = destinationSchema.safeParse(row?.body);
      if (!read.success) throw new AppError('NOT_FOUND');
      return read.data;
    },
    async remove(owner, id) {
      if (isUuid(id)) await rows.delete({ id, owner });
    },
  };
}
