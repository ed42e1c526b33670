import LineBreaker from 'linebreak';

/**
 * Where a line of a text may end (UAX #14), as indices behind the last character, ascending; the text's own end is the
 * last.
 */
export function lineBreaks(text: string): number[] {
  const breaker = new LineBreaker(text);
  const out: number[] = [];
  for (let next = breaker.nextBreak(); next; next = breaker.nextBreak()) out.push(next.position);
  return out;
}
