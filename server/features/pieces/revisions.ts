import jsonPatch from 'fast-json-patch';
import type { Operation } from 'fast-json-patch';
import type { EntityManager } from 'typeorm';
import { RevisionEntity } from '../../db/entities';
import type { RevisionRow } from '../../db/entities';
import { AppError } from '../../platform/errors';

/**
 * Revisions are kept as patches (RFC 6902) against the one before, with the whole document now and then, so that none
 * is far from a whole one. As they age they are thinned: the newest all stay, then the first of each hour, of each day,
 * of each week.
 */
export const FULL_EVERY = 20;
/** A patch that is larger than this share of its document is no saving. */
const WORTHWHILE = 0.5;
const KEEP_ALL = 100;
const HOUR = 3600_000;
/** Beyond an age (ms) one revision a span stays. */
const THINNING = [
  { olderThan: 0, span: HOUR },
  { olderThan: 48 * HOUR, span: 24 * HOUR },
  { olderThan: 60 * 24 * HOUR, span: 7 * 24 * HOUR },
] as const;

export type Json = Record<string, unknown>;

/** How to store a revision. @param before - the document of the revision before; null for the first. */
export function revisionContent(
  before: Json | null,
  after: Json,
  revision: number,
): { document: Json | null; patch: Operation[] | null } {
  if (before === null || revision % FULL_EVERY === 1) return { document: after, patch: null };
  const patch = jsonPatch.compare(before, after);
  const isWorthwhile = JSON.stringify(patch).length < WORTHWHILE * JSON.stringify(after).length;
  return isWorthwhile ? { document: null, patch } : { document: after, patch: null };
}

type Stored = Pick<RevisionRow, 'revision' | 'document' | 'patch'>;

/** The document of the last of a row of revisions, of which the first is whole. */
export function rebuild(rows: readonly Stored[]): Json {
  const [first] = rows;
  if (!first?.document) throw new AppError('NOT_FOUND');
  let document = structuredClone(first.document) as unknown as Json;
  for (const { patch, document: whole } of rows.slice(1))
    document = whole
      ? structuredClone(whole)
      : jsonPatch.applyPatch(document, structuredClone(patch ?? []), false, true).newDocument;
  return document;
}

/** @throws AppError NOT_FOUND. */
export async function readRevision(manager: EntityManager, pieceId: string, revision: number): Promise<Json> {
  const rows = (await manager.query(
    `SELECT revision, document, patch FROM piece_revision WHERE piece_id = $1 AND revision <= $2
       AND revision >= (SELECT max(revision) FROM piece_revision WHERE piece_id = $1 AND revision <= $2 AND document IS NOT NULL) ORDER BY revision`,
    [pieceId, revision],
  )) as Stored[];
  if (rows[rows.length - 1]?.revision !== revision) throw new AppError('NOT_FOUND');
  return rebuild(rows);
}

/** Which revisions go. @param list - ascending. @param now - milliseconds since 1970. */
export function outdated(list: readonly { revision: number; createdAt: Date }[], now: number): number[] {
  const gone: number[] = [];
  const kept = new Set<string>();
  for (const { revision, createdAt } of list.slice(0, Math.max(0, list.length - KEEP_ALL))) {
    const age = now - createdAt.getTime();
    const rule = [...THINNING].reverse().find((r) => age >= r.olderThan) ?? THINNING[0];
    const place = `${rule.span}:${Math.floor(createdAt.getTime() / rule.span)}`;
    if (kept.has(place)) gone.push(revision);
    kept.add(place);
  }
  return gone;
}

/** Thins the revisions of a piece. A patch whose predecessor goes becomes a whole document first. */
export async function thinRevisions(manager: EntityManager, pieceId: string, now: number): Promise<void> {
  const list = await manager.find(RevisionEntity, {
    select: { pieceId: true, revision: true, createdAt: true },
    where: { pieceId },
    order: { revision: 'ASC' },
  });
  const gone = new Set(outdated(list, now));
  if (gone.size === 0) return;
  for (const [i, { revision }] of list.entries()) {
    const before = list[i - 1];
    if (gone.has(revision) || !before || !gone.has(before.revision)) continue;
    const document = await readRevision(manager, pieceId, revision);
    await manager.update(RevisionEntity, { pieceId, revision }, { document: document, patch: null });
  }
  await manager.query('DELETE FROM piece_revision WHERE piece_id = $1 AND revision = ANY($2::int[])', [
    pieceId,
    [...gone],
  ]);
  // Media that no kept revision can use any more.
  await manager.query(
    'DELETE FROM piece_media m WHERE piece_id = $1 AND NOT EXISTS (SELECT 1 FROM piece_revision r WHERE r.piece_id = $1 AND r.revision BETWEEN m.first_revision AND m.last_revision)',
    [pieceId],
  );
}
