import type { JobKind, JobRow, Lane } from '../../db/entities';

/** What goes into the list of jobs, and what is told of one. */

export interface NewJob {
  readonly kind: JobKind;
  readonly lane: Lane;
  readonly owner: string;
  readonly pieceId: string | null;
  readonly payload: Record<string, unknown>;
  /** For renders that belong together; the fingerprint says what one shows. */
  readonly batch?: string;
  readonly fingerprint?: string;
  /** Not taken up before. */
  readonly dueAt?: Date | null;
  /** Not taken up before that job is over. */
  readonly waitsFor?: string | null;
}

/** A render of a batch, without what it is made from. */
export type BatchJob = Pick<
  JobRow,
  'id' | 'state' | 'progress' | 'result' | 'errorCode' | 'errorDetail' | 'finishedAt'
> & { readonly formatId: string; readonly exportKind: string; readonly scope: string };

/** What is shown of a job. */
export type ListedJob = Pick<
  JobRow,
  'id' | 'kind' | 'state' | 'progress' | 'result' | 'errorCode' | 'errorDetail' | 'startedAt' | 'createdAt'
> & { readonly payload: Readonly<Record<string, unknown>> };

/** A render in the list of all. */
export type QueuedRender = ListedJob & { readonly pieceId: string | null; readonly finishedAt: Date | null };

/** Something that is sent. */
export type SendJob = ListedJob & { readonly dueAt: Date | null; readonly finishedAt: Date | null };

/** Why a job is put off. */
export interface Lateness {
  /** What people are told meanwhile; null for nothing. */
  readonly code: string | null;
  readonly detail: string;
  readonly payload: Record<string, unknown>;
}

export type Outcome =
  | { readonly state: 'succeeded'; readonly result: Record<string, unknown> }
  | { readonly state: 'failed' | 'paused'; readonly code: string; readonly detail: string };
