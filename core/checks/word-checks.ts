import { shownLayers, wordRanges } from '../piece';
import type { TextLayer } from '../piece';
import { finding } from './finding';
import type { CheckContext, Finding } from './finding';

/** Shorter words differ by what they mean: "an" and "án". */
const SHORTEST = 4;

const MARKS = /\p{M}+/gu;
const JOINTS = /[-‐‑'’]/gu;

/** What two spellings of one word have in common: letters without their marks, hyphens and apostrophes. */
const bare = (word: string): string => word.normalize('NFD').replace(MARKS, '').replace(JOINTS, '').toLowerCase();

/** Words that are spelled in more than one way: with an accent here and without it there, with a hyphen and without. */
export function spelledTwoWays({ piece }: CheckContext): Finding[] {
  const found = new Map<string, Map<string, TextLayer>>();
  for (const layer of shownLayers(piece.layers)) {
    if (layer.kind !== 'text') continue;
    const { text } = layer.content;
    for (const { start, end } of wordRanges(text)) {
      const word = text.slice(start, end).replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, '');
      if (word.length < SHORTEST) continue;
      const spelled = word.normalize('NFC').toLowerCase();
      const ways = found.get(bare(word)) ?? new Map<string, TextLayer>();
      if (!ways.has(spelled)) ways.set(spelled, layer);
      found.set(bare(word), ways);
    }
  }
  return [...found.values()].flatMap((ways) => {
    if (ways.size < 2) return [];
    const words = [...ways.keys()].map((word) => `“${word}”`).join(' and ');
    const [, second] = [...ways.values()];
    return [finding('warning', `The same word is spelled ${words}.`, { layerId: second?.id ?? null })];
  });
}
