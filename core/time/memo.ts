/**
 * Remembers what was computed for a key. When it holds `limit` answers it is emptied: simpler than dropping the oldest,
 * and as fast for what comes again and again.
 */
export function createMemo<V>(limit: number): (key: string, compute: () => V) => V {
  const known = new Map<string, V>();
  return (key, compute) => {
    const answer = known.get(key);
    if (answer !== undefined || known.has(key)) return answer as V; // present, so it is a V
    const value = compute();
    if (known.size >= limit) known.clear();
    known.set(key, value);
    return value;
  };
}
