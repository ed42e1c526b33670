import type { FontLibrary } from '../text';
import type { Piece } from './schema';
import { inCase } from './text-content';

interface TextNeed {
  readonly family: string;
  readonly italic: boolean;
  readonly text: string;
}

/** Every face a piece writes with and what is written in it. */
function textNeeds(piece: Piece): TextNeed[] {
  return piece.layers.flatMap((layer): TextNeed[] => {
    if (layer.kind !== 'text') return [];
    const { family, italic, spans, letterCase } = layer.content;
    // Numbers that count pass through every digit.
    const text = inCase(layer.content.text, letterCase) + (layer.gestures.length > 0 ? '0123456789' : '');
    return [{ family, italic, text }, ...spans.filter((s) => s.family !== undefined || s.italic !== undefined).map((s) => ({ family: s.family ?? family, italic: s.italic ?? italic, text: text.slice(s.start, s.end) }))];
  });
}

/** Loads what a piece writes with, before a host lays its text out. Rejects if a font cannot be read. */
export async function loadTexts(piece: Piece, fonts: FontLibrary): Promise<void> {
  await Promise.all(textNeeds(piece).map((need) => fonts.load(need.family, need.italic, need.text)));
}
