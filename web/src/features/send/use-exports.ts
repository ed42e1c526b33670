import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { api, call } from '../../platform/api';
import { onNews } from '../../platform/news';

export const exportsKey = (pieceId: string) => ['exports', pieceId];
export const RENDERS_KEY = ['renders'];

export const isActive = (state: string): boolean => state === 'queued' || state === 'running' || state === 'paused';

/** Asked again so often while something moves, and otherwise: news can be missed. */
const MOVING_MS = 3000;
const STILL_MS = 30_000;

const loadExports = (pieceId: string) =>
  call(api.jobs.exports.of[':pieceId'].$get({ param: { pieceId } })).then((r) => r.jobs);
export type ExportJob = Awaited<ReturnType<typeof loadExports>>[number];

const loadRenders = () => call(api.jobs.renders.$get()).then((r) => r.jobs);
export type RenderJob = Awaited<ReturnType<typeof loadRenders>>[number];

/** Asks again when there is news of the renders of a piece, or of all. */
function useJobNews(pieceId: string | null): void {
  const queries = useQueryClient();
  useEffect(() => {
    const ask = () =>
      void queries.invalidateQueries({ queryKey: pieceId === null ? RENDERS_KEY : exportsKey(pieceId) });
    return onNews((news) => {
      if (news.topic === 'job' && (pieceId === null || news.pieceId === pieceId)) ask();
    }, ask);
  }, [queries, pieceId]);
}

/** The renders of a piece, the newest first, kept up to date while they are shown. */
export function useExports(pieceId: string, enabled = true) {
  const exports = useQuery({
    queryKey: exportsKey(pieceId),
    enabled,
    queryFn: () => loadExports(pieceId),
    refetchInterval: (query) => (query.state.data?.some((j) => isActive(j.state)) ? MOVING_MS : STILL_MS),
  });
  useJobNews(pieceId);
  return exports;
}

/** The renders of all pieces: what is to be made in its order, then what is over. */
export function useRenders() {
  const renders = useQuery({
    queryKey: RENDERS_KEY,
    queryFn: loadRenders,
    refetchInterval: (query) => (query.state.data?.some((j) => isActive(j.state)) ? MOVING_MS : STILL_MS),
  });
  useJobNews(null);
  return renders;
}
