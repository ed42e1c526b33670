import { longestContour } from '../../geometry';
import type { Fill, GroupItem, ItemStroke, ShapeItem } from '../list/display-list';
import { INVISIBLE } from '../text/text-at';

/** Width of an outline that draws itself where the layer has no stroke, em. */
export const FILAMENT_WIDTH = 0.018;

/** The one colour that stands for a fill where a line is drawn with it. */
export function mainColour(fill: Fill): string {
  switch (fill.type) {
    case 'solid':
      return fill.colour;
    case 'picture':
      return fill.fallback;
    case 'gradient':
      return fill.gradient.stops[0]!.colour; // a gradient has stops
    default:
      return fill.start;
  }
}

/**
 * A shape whose outline draws itself while its fill comes in: two items, because each is as opaque as it is by itself.
 * @param drawn - share of the outline that is there.
 * @param ink - share of the fill that is there.
 * @param em - in the item's coordinates.
 */
export function drawnOn(item: ShapeItem, drawn: number, ink: number, em: number): GroupItem {
  const { stroke: own, fill, more: _more, dash: _dash, ...rest } = item;
  const length = longestContour(item.pathKey, item.path);
  const line: ItemStroke = own
    ? { ...own, behind: false }
    : { colour: fill ? mainColour(fill) : '#FFFFFF', width: FILAMENT_WIDTH * em, behind: false };
  // A dash of the stroke's own would be a second one.
  const stroke: ItemStroke = line.style ? { ...line, style: { ...line.style, dash: [] } } : line;
  const alone = { ...rest, opacity: 1, blend: 'normal' as const };
  const children: ShapeItem[] = [];
  if (ink > INVISIBLE)
    children.push({ ...alone, opacity: ink, fill, stroke: null, fingerprint: `${item.fingerprint}i${ink}` });
  if (drawn > 0)
    children.push({
      ...alone,
      fill: null,
      stroke,
      dash: { on: length * drawn, off: length * 2, shift: 0 },
      fingerprint: `${item.fingerprint}d${drawn}`,
    });
  const print = `${item.opacity}|${item.blend}`;
  return {
    kind: 'group',
    holds: 'parts',
    layerId: item.layerId,
    children,
    under: [],
    matrix: item.matrix,
    box: item.box,
    opacity: item.opacity,
    blend: item.blend,
    own: print,
    fingerprint: `o${print}[${children.map((child) => child.fingerprint).join('~')}]`,
  };
}
