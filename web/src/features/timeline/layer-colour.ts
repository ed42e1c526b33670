import { trackOf, worn } from '@core/piece';
import type { Layer } from '@core/piece';
import { useDesk } from '../../store/desk-store';

/** The colour a layer draws with, in the wardrobe of the open piece. */
export function layerColour(given: Layer): string {
  const wardrobe = useDesk.getState().piece?.wardrobe;
  const layer = wardrobe ? worn(given, wardrobe) : given;
  if (layer.kind === 'picture') return '#7d8b99';
  const fill = trackOf(layer, 'fill')?.value;
  if (typeof fill === 'string' && !(fill.length === 9 && parseInt(fill.slice(7), 16) < 40)) return fill.slice(0, 7);
  const stroke = trackOf(layer, 'stroke')?.value;
  return typeof stroke === 'string' ? stroke.slice(0, 7) : '#7d8b99';
}

/** Ink that can be read on a colour: by relative luminance. */
export function inkOn(colour: string): string {
  const [r, g, b] = [1, 3, 5].map((i) => (parseInt(colour.slice(i, i + 2), 16) / 255) ** 2.2) as [
    number,
    number,
    number,
  ];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b > 0.25 ? '#11151b' : '#eee9df';
}
