import type { Operation } from 'fast-json-patch';
import { EntitySchema } from 'typeorm';
import type { FontRef, FootageRef, MediaRef, Piece } from '@core/piece';

export interface PieceRow {
  id: string;
  name: string;
  document: Piece;
  revision: number;
  createdAt: Date;
  updatedAt: Date;
  deletedAt: Date | null;
  owner: string;
  /** The save that made the present revision. */
  saveId: string | null;
  /** What the home shows, written at save so that no document is read for a list. */
  duration: number;
  layerCount: number;
  formats: Piece['formats'];
  leadFormatId: string;
  frameRate: Piece['frameRate'];
  /** Beat times, negative where no bar begins. */
  beats: number[];
  /** What a search looks at, in small letters. */
  searchText: string;
  /** Seconds of the frame shown first. */
  poster: number;
  isSummarised: boolean;
}

export interface RevisionRow {
  pieceId: string;
  revision: number;
  /** Null where `patch` leads here from the revision before. */
  document: Piece | null;
  /** RFC 6902. */
  patch: Operation[] | null;
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
  /** Footage only, once its frames are made. */
  footage: FootageRef | null;
  owner: string;
  /** When somebody last wanted it. */
  touchedAt: Date;
  createdAt: Date;
}

/** Something that is kept for all pieces; `body` is as its kind says (core/piece/document/kept.ts). */
export interface KeptRow {
  id: string;
  owner: string;
  kind: string;
  name: string;
  version: number;
  body: Record<string, unknown>;
  updatedAt: Date;
}

/** The table that belongs to a group of a piece; `body` is as core/roster/roster-schema.ts says. */
export interface RosterRowOfTable {
  pieceId: string;
  groupId: string;
  owner: string;
  revision: number;
  body: Record<string, unknown>;
  updatedAt: Date;
}

/** Where finished files are sent; `body` is as core/formats/destinations.ts says. */
export interface DestinationRow {
  id: string;
  owner: string;
  body: Record<string, unknown>;
  createdAt: Date;
}

export type JobKind = 'prepare' | 'export' | 'row' | 'part' | 'send';
/**
 * Jobs of one lane wait for each other; lanes don't: hundreds of rows hold up nobody's single render, and films no still,
 * sound or list (`quick`).
 */
export const LANES = ['prepare', 'prepare-long', 'export', 'quick', 'batch', 'send'] as const;
/** Parts of renders have no lane of their own in the queue: whoever is idle looks for them. */
export type Lane = (typeof LANES)[number] | 'part';
export type JobState = 'queued' | 'running' | 'succeeded' | 'failed' | 'canceled' | 'paused';

export interface JobRow {
  id: string;
  owner: string;
  kind: JobKind;
  lane: Lane;
  pieceId: string | null;
  state: JobState;
  /** 0…1, never decreasing within an attempt. */
  progress: number;
  payload: Record<string, unknown>;
  result: Record<string, unknown> | null;
  errorCode: string | null;
  errorDetail: string | null;
  /** Number of the present attempt: what a worker writes counts only while this is its own. */
  attempts: number;
  queueId: string | null;
  /** Jobs of a lane are taken up in this order. */
  position: number;
  /** Not taken up before; null at once. */
  dueAt: Date | null;
  /** Not taken up before that job is over; null for none. */
  waitsFor: string | null;
  /** How often its worker was lost. */
  losses: number;
  /** Renders that belong together, and what tells whether one of them is there already; null for single jobs. */
  batch: string | null;
  fingerprint: string | null;
  startedAt: Date | null;
  heartbeatAt: Date | null;
  finishedAt: Date | null;
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
    owner: { type: 'text' },
    saveId: { name: 'save_id', type: 'text', nullable: true },
    duration: { type: 'double precision' },
    layerCount: { name: 'layer_count', type: 'int' },
    formats: { type: 'jsonb' },
    leadFormatId: { name: 'lead_format_id', type: 'text' },
    frameRate: { name: 'frame_rate', type: 'jsonb' },
    beats: { type: 'jsonb' },
    searchText: { name: 'search_text', type: 'text' },
    poster: { type: 'double precision' },
    isSummarised: { name: 'is_summarised', type: 'boolean' },
  },
});

export const RevisionEntity = new EntitySchema<RevisionRow>({
  name: 'piece_revision',
  columns: {
    pieceId: { name: 'piece_id', type: 'text', primary: true },
    revision: { type: 'int', primary: true },
    document: { type: 'jsonb', nullable: true },
    patch: { type: 'jsonb', nullable: true },
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
    footage: { type: 'jsonb', nullable: true },
    owner: { type: 'text' },
    touchedAt: { name: 'touched_at', type: 'timestamptz' },
    createdAt: created,
  },
});

export const KeptEntity = new EntitySchema<KeptRow>({
  name: 'kept',
  columns: {
    id: { type: 'text', primary: true },
    owner: { type: 'text' },
    kind: { type: 'text' },
    name: { type: 'text' },
    version: { type: 'int' },
    body: { type: 'jsonb' },
    updatedAt: { name: 'updated_at', type: 'timestamptz' },
  },
});

export const RosterEntity = new EntitySchema<RosterRowOfTable>({
  name: 'roster',
  columns: {
    pieceId: { name: 'piece_id', type: 'text', primary: true },
    groupId: { name: 'group_id', type: 'text', primary: true },
    owner: { type: 'text' },
    revision: { type: 'int' },
    body: { type: 'jsonb' },
    updatedAt: { name: 'updated_at', type: 'timestamptz' },
  },
});

export const DestinationEntity = new EntitySchema<DestinationRow>({
  name: 'destination',
  columns: {
    id: { type: 'uuid', primary: true },
    owner: { type: 'text' },
    body: { type: 'jsonb' },
    createdAt: created,
  },
});

export const JobEntity = new EntitySchema<JobRow>({
  name: 'job',
  columns: {
    id: { type: 'uuid', primary: true },
    owner: { type: 'text' },
    kind: { type: 'text' },
    lane: { type: 'text' },
    pieceId: { name: 'piece_id', type: 'text', nullable: true },
    state: { type: 'text' },
    progress: { type: 'double precision', default: 0 },
    payload: { type: 'jsonb' },
    result: { type: 'jsonb', nullable: true },
    errorCode: { name: 'error_code', type: 'text', nullable: true },
    errorDetail: { name: 'error_detail', type: 'text', nullable: true },
    attempts: { type: 'int', default: 0 },
    queueId: { name: 'queue_id', type: 'uuid', nullable: true },
    position: { type: 'double precision', default: () => 'extract(epoch FROM clock_timestamp())' },
    dueAt: { name: 'due_at', type: 'timestamptz', nullable: true },
    waitsFor: { name: 'waits_for', type: 'uuid', nullable: true },
    losses: { type: 'int', default: 0 },
    batch: { type: 'text', nullable: true },
    fingerprint: { type: 'text', nullable: true },
    startedAt: { name: 'started_at', type: 'timestamptz', nullable: true },
    heartbeatAt: { name: 'heartbeat_at', type: 'timestamptz', nullable: true },
    finishedAt: { name: 'finished_at', type: 'timestamptz', nullable: true },
    createdAt: created,
  },
});
