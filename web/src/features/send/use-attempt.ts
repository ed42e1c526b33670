import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { saidBy } from '../../platform/api';
import { WORDS } from './words';

/** Does something with renders, says what the server said against it, and looks at the lists again. */
export function useAttempt(): {
  readonly problem: string | null;
  readonly attempt: (work: () => Promise<unknown>) => Promise<void>;
} {
  const queries = useQueryClient();
  const [problem, setProblem] = useState<string | null>(null);
  const attempt = async (work: () => Promise<unknown>): Promise<void> => {
    setProblem(null);
    try {
      await work();
    } catch (error) {
      setProblem(saidBy(error, WORDS.thatDidNotWork));
    }
    await Promise.all([
      queries.invalidateQueries({ queryKey: ['exports'] }),
      queries.invalidateQueries({ queryKey: ['renders'] }),
    ]);
  };
  return { problem, attempt };
}
