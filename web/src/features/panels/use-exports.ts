import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { api, call } from '../../platform/api';
import { onNews } from '../../platform/news';

export const exportsKey = (pieceId: string) => ['exports', pieceId];

export const isActive = (state: string): boolean => state === 'queued' || state === 'running';

/** The renders of a piece, the newest first, kept up to date while they are shown. */
export function useExports(pieceId: string, enabled = true) {
  const queries = useQueryClient();
  const exports = useQuery({
    queryKey: exportsKey(pieceId),
    enabled,
    queryFn: () => call(api.jobs.exports.of[':pieceId'].$get({ param: { pieceId } })).then((r) => r.jobs),
    refetchInterval: (query) => (query.state.data?.some((j) => isActive(j.state)) ? 3000 : 30_000),
  });
  useEffect(
    () =>
      onNews(
        (news) =>
          news.topic === 'job' &&
          news.pieceId === pieceId &&
          void queries.invalidateQueries({ queryKey: exportsKey(pieceId) }),
      ),
    [queries, pieceId],
  );
  return exports;
}
