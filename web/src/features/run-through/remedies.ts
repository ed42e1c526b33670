import { createLayer, leadFormat, trackOf } from '@core/piece';
import type { Piece, TextLayer } from '@core/piece';
import { newId } from '../../platform/ids';
import { edit } from '../../store/desk-store';
import type { ContrastFinding } from '../../platform/contrast-scan';
import { WORDS } from './words';

const PAPER = '#F6F2EA';
const INK = '#11151B';

/** Luminance at which white and black letters stand out alike: (L + 0.05)² = 1.05 × 0.05. */
const EVEN_LUMINANCE = Math.sqrt(1.05 * 0.05) - 0.05;

/** What helps letters that are too faint, each one click and one undo. */
export const REMEDIES = {
  band: {
    label: WORDS.band,
    apply: (layer: TextLayer) =>
      wear(layer, { band: { per: 'line', colour: isLight(layer) ? INK : PAPER, padX: 0.2, padY: 0.3, radius: 0.08 } }),
  },
  shadow: {
    label: WORDS.shadow,
    apply: (layer: TextLayer) =>
      wear(layer, { glow: { colour: isLight(layer) ? '#000000FF' : '#FFFFFFFF', radius: 0.12 } }),
  },
  colour: {
    label: WORDS.otherColour,
    apply: (layer: TextLayer, finding: ContrastFinding) =>
      void edit([
        {
          type: 'value.set',
          layerId: layer.id,
          property: 'fill',
          value: finding.behind > EVEN_LUMINANCE ? INK : PAPER,
        },
      ]),
  },
  tint: {
    label: WORDS.tintBehind,
    apply: (layer: TextLayer, _finding: ContrastFinding, piece: Piece) => tintBehind(layer, piece),
  },
} as const;

function wear(layer: TextLayer, dress: Partial<TextLayer['content']['dress']>): void {
  edit([{ type: 'layer.setContent', id: layer.id, content: { dress: { ...layer.content.dress, ...dress } } }]);
}

function isLight(layer: TextLayer): boolean {
  const fill = String(trackOf(layer, 'fill')?.value ?? PAPER);
  const [r, g, b] = [1, 3, 5].map((i) => parseInt(fill.slice(i, i + 2), 16));
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b! > 128;
}

/** A veil under the words for as long as they stand, dark under light letters and light under dark ones. */
function tintBehind(layer: TextLayer, piece: Piece): void {
  const lead = leadFormat(piece);
  const veil = createLayer(
    'rectangle',
    {
      name: WORDS.tintUnder(layer.name).slice(0, 200),
      start: layer.start,
      end: layer.end,
      values: { dimensions: [lead.width, lead.height], fill: isLight(layer) ? `${INK}B0` : `${PAPER}B0` },
    },
    newId,
  );
  edit([{ type: 'layer.add', layers: [veil], at: piece.layers.indexOf(layer) }]);
}
