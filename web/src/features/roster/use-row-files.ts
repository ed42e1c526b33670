import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import type { ExportKindId } from '@core/formats';
import type { RowScope } from '@core/roster';
import { api, call } from '../../platform/api';
import { onNews } from '../../platform/news';

/** What is made of rows. */
export interface FileRequest {
  readonly formatIds: readonly string[];
  readonly kind: ExportKindId;
  readonly scope: RowScope;
  readonly pattern: string;
}

/** What the server tells of a file of a row. */
export type RowFile = Awaited<ReturnType<typeof readFiles>>[number];

const query = ({ formatIds, ...rest }: FileRequest) => ({ ...rest, formatIds: formatIds.join(',') });

const readFiles = (pieceId: string, groupId: string, request: FileRequest) =>
  call(api.rosters[':pieceId'][':groupId'].files.$get({ param: { pieceId, groupId }, query: query(request) })).then(
    ({ files }) => files,
  );

export const zipAddress = (pieceId: string, groupId: string, request: FileRequest): string =>
  `/api/rosters/${encodeURIComponent(pieceId)}/${encodeURIComponent(groupId)}/files.zip?${new URLSearchParams(query(request)).toString()}`;

/** Between two looks, however much is told meanwhile. */
const LOOK_MS = 1000;

/**
 * The files of the rows as they stand, kept up to date while they are shown.
 * @param asOf - of what they are asked for: another roster or piece has other files.
 */
export function useRowFiles(pieceId: string, groupId: string, request: FileRequest, asOf: string) {
  const queries = useQueryClient();
  const files = useQuery({
    queryKey: ['row-files', pieceId, groupId, asOf, request],
    enabled: request.formatIds.length > 0,
    placeholderData: (before) => before,
    queryFn: () => readFiles(pieceId, groupId, request),
    refetchInterval: (one) =>
      one.state.data?.some(({ state }) => state === 'queued' || state === 'running') ? 3 * LOOK_MS : 30 * LOOK_MS,
  });
  const look = () => queries.invalidateQueries({ queryKey: ['row-files', pieceId, groupId] });
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | null = null;
    const ask = () => void queries.invalidateQueries({ queryKey: ['row-files', pieceId, groupId] });
    const stop = onNews((news) => {
      if (news.topic !== 'job' || news.pieceId !== pieceId || timer) return;
      timer = setTimeout(() => {
        timer = null;
        ask();
      }, LOOK_MS);
    }, ask);
    return () => {
      stop();
      if (timer) clearTimeout(timer);
    };
  }, [queries, pieceId, groupId]);
  return { files: files.data ?? [], look };
}
