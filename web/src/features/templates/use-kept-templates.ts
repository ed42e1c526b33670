import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { Piece } from '@core/piece';
import { saidBy } from '../../platform/api';
import { setView } from '../../store/desk-store';
import { keptTemplates } from './kept-templates';
import { WORDS } from './words';

const KEY = ['kept-templates'];

/** Templates kept for all pieces. */
export const useKeptTemplates = () => useQuery({ queryKey: KEY, queryFn: keptTemplates });

/** Shows other kept templates from now on; nothing given has them asked for again. */
export function useShowKept(): (all?: readonly Piece[]) => void {
  const client = useQueryClient();
  return (all) => void (all ? client.setQueryData(KEY, all) : client.invalidateQueries({ queryKey: KEY }));
}

export const tellFailure = (error: unknown): void => setView({ notice: saidBy(error, WORDS.couldNotBeReached) });
