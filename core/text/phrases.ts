import LineBreaker from 'linebreak';
import { leans, opens } from './sense';

/**
 * Splits a quote into phrases that are shown one at a time: sentences, then clauses, then breath units of a few words.
 * Where a clause is too long, the split is found by dynamic programming over the gaps between words: even lengths,
 * breaks before words that open something (and, because, with …), and never a break behind a word that belongs to the
 * next one (a, the, of, my …).
 */
export interface PhraseOptions {
  /** Characters a phrase should have, spaces included. A phrase is longer only where it may not be broken. */
  readonly most: number;
}
export const DEFAULT_PHRASES: PhraseOptions = { most: 30 };

/** Cost of a phrase's distance from an even share, of a break where none is wanted, of a word left alone. */
const FORBIDDEN = 1e6;
const ALONE = 1.2;
const OPENS = -0.35;

function breathUnits(words: readonly string[], most: number): string[] {
  const n = words.length;
  const length = (from: number, to: number) => words.slice(from, to).reduce((sum, w) => sum + w.length + 1, -1);
  if (length(0, n) <= most || n < 2) return [words.join(' ')];
  const ideal = length(0, n) / Math.ceil(length(0, n) / most);
  const best = new Float64Array(n + 1).fill(Infinity);
  const from = new Int32Array(n + 1);
  best[0] = 0;
  for (let end = 1; end <= n; end++) {
    for (let start = end - 1; start >= 0; start--) {
      const size = length(start, end);
      if (size > most * 2 && end - start > 1) break;
      let cost = ((size - ideal) / ideal) ** 2;
      if (size > most) cost += (3 * (size - most)) / most;
      if (end - start === 1) cost += ALONE;
      if (end < n) cost += (leans(words[end - 1]!) ? FORBIDDEN : 0) + (opens(words[end]!) ? OPENS : 0);
      if (best[start]! + cost < best[end]!) {
        best[end] = best[start]! + cost;
        from[end] = start;
      }
    }
    // Every word may lean on the next: a run of them has to be taken whole.
    if (best[end] === Infinity) {
      best[end] = best[0] + FORBIDDEN;
      from[end] = 0;
    }
  }
  const out: string[] = [];
  for (let end = n; end > 0; end = from[end]!) out.unshift(words.slice(from[end], end).join(' '));
  return out;
}

/** Scripts written without spaces are cut at the breaks that UAX #14 allows. */
const WITHOUT_SPACES = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}]/u;

function unspaced(text: string, most: number): string[] {
  const breaker = new LineBreaker(text);
  const limit = Math.max(4, Math.round(most / 2));
  const out: string[] = [];
  let start = 0;
  let fits = 0;
  for (let next = breaker.nextBreak(); next; next = breaker.nextBreak()) {
    if (next.position - start > limit && fits > start) {
      out.push(text.slice(start, fits));
      start = fits;
    }
    fits = next.position;
  }
  out.push(text.slice(start));
  return out.map((s) => s.trim()).filter((s) => s !== '');
}

/**
 * Sentence ends: a mark with what closes after it, then white space; the ideographic marks need nothing behind them.
 */
const SENTENCE_ENDS = /[.!?…]+["”’»')\]]*(?=\s)|[。！？]+[」』]?/gu;
/** A dot behind one of these ends no sentence: initials, and the commonest abbreviations. */
const ABBREVIATED = /(?:^|[\s("“])(?:\p{Lu}|mr|mrs|ms|dr|st|no|vs|e\.g|i\.e|etc|sr|sra)\.$/iu;
const CLAUSES = /.+?(?:[,;:，、；：](?=\s|$|[^\d\s])|\s[–—-](?=\s)|[–—]|$)/gu;

export function splitPhrases(text: string, options: PhraseOptions = DEFAULT_PHRASES): string[] {
  const out: string[] = [];
  for (const line of text.split(/\n+/)) {
    for (const sentence of sentencesOf(line)) {
      const clauses = [...sentence.matchAll(CLAUSES)].map(([c]) => c.trim()).filter((c) => c !== '');
      // A clause of one short word (Yes, Now,) goes with the next.
      const joined: string[] = [];
      for (const clause of clauses) {
        const last = joined[joined.length - 1];
        if (
          last !== undefined &&
          (isScrap(last) || isScrap(clause)) &&
          last.length + 1 + clause.length <= options.most * 1.25
        )
          joined[joined.length - 1] = `${last} ${clause}`;
        else joined.push(clause);
      }
      for (const clause of joined) {
        if (WITHOUT_SPACES.test(clause)) out.push(...unspaced(clause, options.most));
        else out.push(...breathUnits(clause.split(/\s+/u), options.most));
      }
    }
  }
  return out;
}

const isScrap = (clause: string): boolean => !/\s/u.test(clause) && clause.length <= 8 && !WITHOUT_SPACES.test(clause);

function sentencesOf(line: string): string[] {
  const out: string[] = [];
  let start = 0;
  for (const match of line.matchAll(SENTENCE_ENDS)) {
    const end = match.index + match[0].length;
    if (ABBREVIATED.test(line.slice(start, end))) continue;
    out.push(line.slice(start, end).trim());
    start = end;
  }
  out.push(line.slice(start).trim());
  return out.filter((s) => s !== '');
}

/**
 * The gap of `text` at which two phrases would best be parted when someone asks for it without saying where: the
 * middle-most one that does not leave a leaning word behind.
 * @returns Character index of the gap, or null for a single word.
 */
export function bestSplit(text: string): number | null {
  const gaps = [...text.matchAll(/\s+/gu)].map((m) => m.index).filter((i) => i > 0 && i < text.length - 1);
  let best: number | null = null;
  let least = Infinity;
  for (const gap of gaps) {
    const word = /\S+$/u.exec(text.slice(0, gap))?.[0] ?? '';
    const cost = Math.abs(gap - text.length / 2) + (leans(word) ? text.length : 0);
    if (cost < least) [best, least] = [gap, cost];
  }
  return best;
}
