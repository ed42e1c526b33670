import { EntitySchema } from 'typeorm';
import type { SongAnalysis } from '@core/audio';
import type { FontRef, MediaRef, Piece } from '@core/piece';

export interface PieceRow {
  id: string;
  name: string;
  document: Piece;
  revision: number;
  createdAt: Date;
  updatedAt: Date;
  deletedAt: Date | null;
}

export interface RevisionRow {
  pieceId: string;
  revision: number;
  document: Piece;
  label: string;
  createdAt: Date;
}

export type MediaState = 'preparing' | 'ready' | 'failed';

export interface MediaRow {
  hash: string;
  kind: MediaRef['kind'];
  name: string;
  bytes: string;
  state: MediaState;
  duration: number | null;
  width: number | null;
  height: number | null;
  warning: string | null;
  /** Fonts only. */
  font: FontRef | null;
  analysis: SongAnalysis | null;
  createdAt: Date;
}

export type JobKind = 'prepare' | 'export';
export type JobState = 'queued' | 'running' | 'succeeded' | 'failed' | 'canceled';

export interface JobRow {
  id: string;
  kind: JobKind;
  state: JobState;
  /** 0…1, never decreasing within an attempt. */
  progress: number;
  payload: Record<string, unknown>;
  result: Record<string, unknown> | null;
  errorCode: string | null;
  errorDetail: string | null;
  attempts: number;
  queueId: string | null;
  startedAt: Date | null;
  heartbeatAt: Date | null;
  createdAt: Date;
}

const created = { name: 'created_at', type: 'timestamptz', createDate: true } as const;

export const PieceEntity = new EntitySchema<PieceRow>({
  name: 'piece',
  columns: {
    id: { type: 'text', primary: true },
    name: { type: 'text' },
    document: { type: 'jsonb' },
    revision: { type: 'int' },
    createdAt: created,
    updatedAt: { name: 'updated_at', type: 'timestamptz' },
    deletedAt: { name: 'deleted_at', type: 'timestamptz', nullable: true },
  },
});

export const RevisionEntity = new EntitySchema<RevisionRow>({
  name: 'piece_revision',
  columns: {
    pieceId: { name: 'piece_id', type: 'text', primary: true },
    revision: { type: 'int', primary: true },
    document: { type: 'jsonb' },
    label: { type: 'text' },
    createdAt: created,
  },
});

export const MediaEntity = new EntitySchema<MediaRow>({
  name: 'media',
  columns: {
    hash: { type: 'text', primary: true },
    kind: { type: 'text' },
    name: { type: 'text' },
    bytes: { type: 'bigint' },
    state: { type: 'text' },
    duration: { type: 'double precision', nullable: true },
    width: { type: 'int', nullable: true },
    height: { type: 'int', nullable: true },
    warning: { type: 'text', nullable: true },
    font: { type: 'jsonb', nullable: true },
    analysis: { type: 'jsonb', nullable: true },
    createdAt: created,
  },
});

export const JobEntity = new EntitySchema<JobRow>({
  name: 'job',
  columns: {
    id: { type: 'uuid', primary: true },
    kind: { type: 'text' },
    state: { type: 'text' },
    progress: { type: 'double precision', default: 0 },
    payload: { type: 'jsonb' },
    result: { type: 'jsonb', nullable: true },
    errorCode: { name: 'error_code', type: 'text', nullable: true },
    errorDetail: { name: 'error_detail', type: 'text', nullable: true },
    attempts: { type: 'int', default: 0 },
    queueId: { name: 'queue_id', type: 'uuid', nullable: true },
    startedAt: { name: 'started_at', type: 'timestamptz', nullable: true },
    heartbeatAt: { name: 'heartbeat_at', type: 'timestamptz', nullable: true },
    createdAt: created,
  },
});
