import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { api, call } from '../../platform/api';
import { onNews } from '../../platform/news';
import { isActive } from './use-exports';

export const DESTINATIONS_KEY = ['destinations'];
export const sendsKey = (pieceId: string) => ['sends', pieceId];

const loadDestinations = () => call(api.destinations.$get()).then((r) => r.destinations);
export type DestinationRow = Awaited<ReturnType<typeof loadDestinations>>[number];

const loadSends = (pieceId: string) => call(api.sends.of[':pieceId'].$get({ param: { pieceId } })).then((r) => r.sends);
export type Send = Awaited<ReturnType<typeof loadSends>>[number];

/** Asked again so often while something is sent, and otherwise: news can be missed. */
const MOVING_MS = 2000;
const STILL_MS = 30_000;

export const useDestinations = () => useQuery({ queryKey: DESTINATIONS_KEY, queryFn: loadDestinations });

/** What of a piece is sent, or to be sent, kept up to date while it is shown. */
export function useSends(pieceId: string) {
  const queries = useQueryClient();
  useEffect(() => {
    const ask = () => void queries.invalidateQueries({ queryKey: sendsKey(pieceId) });
    return onNews((news) => {
      if (news.topic === 'job' && news.pieceId === pieceId) ask();
    }, ask);
  }, [queries, pieceId]);
  return useQuery({
    queryKey: sendsKey(pieceId),
    queryFn: () => loadSends(pieceId),
    refetchInterval: (query) => (query.state.data?.some((send) => isActive(send.state)) ? MOVING_MS : STILL_MS),
  });
}
