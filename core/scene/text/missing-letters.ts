import { familyOf } from '../../piece';
import type { Piece, TextLayer } from '../../piece';
import type { TextStyle } from '../../text';
import type { LayoutText } from './text-at';

/** A text in its font and nothing else, on one line. */
export const plainStyle = (layer: TextLayer, { wardrobe }: Pick<Piece, 'wardrobe'>): TextStyle => ({
  family: familyOf(wardrobe, layer.content.family),
  italic: layer.content.italic,
  weight: 400,
  tracking: 0,
  leading: 1,
  align: 'left',
  wrapWidth: null,
});

/** Letters of a text that no font has, each once; empty if all can be written. */
export function lettersWithoutGlyph(layer: TextLayer, piece: Pick<Piece, 'wardrobe'>, layoutText: LayoutText): string {
  const { text } = layer.content;
  const { missing } = layoutText(text, plainStyle(layer, piece)).layout;
  return [...new Set(missing.map((index) => String.fromCodePoint(text.codePointAt(index) ?? 32)))].join('');
}
