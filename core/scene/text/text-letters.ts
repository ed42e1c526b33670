import type { Colour } from '../../colour';
import type { TextLayer } from '../../piece';
import { UNITS } from '../../text';
import type { PlacedGlyph } from '../../text';
import { wipeEdge } from '../movement/act';
import type { Act } from '../movement/act';
import type { GroupItem, ShapeItem } from '../list/display-list';
import { FILAMENT_WIDTH, mainColour } from '../layers/drawn-on';
import { fillOf, pictureFill, printFill, tinted, withBlur } from '../layers/layer-reader';
import { longestContour, multiply, scaleOf } from '../../geometry';
import type { Matrix } from '../../geometry';
import { INVISIBLE, partsFor } from './text-at';
import type { TextAt } from './text-at';

export function bySpan(glyphs: readonly PlacedGlyph[]): Map<number, PlacedGlyph[]> {
  const out = new Map<number, PlacedGlyph[]>();
  for (const glyph of glyphs) {
    const list = out.get(glyph.span);
    if (list) list.push(glyph);
    else out.set(glyph.span, [glyph]);
  }
  return out;
}

/** Blurs of letters come in steps of a tenth, which nobody sees, so that neighbours can be blurred in one pass. */
const BLUR_STEP = Math.log(1.1);
const blurLevel = (blur: number): number =>
  blur > 0.05 ? Math.exp(Math.round(Math.log(blur) / BLUR_STEP) * BLUR_STEP) : 0;

/** Letters a second that stand in while a letter is scrambled. */
const SCRAMBLE_RATE = 14;

/** The letters of a unit that share a style, as they are drawn. */
export function lettersItem(
  at: TextAt,
  name: string,
  glyphs: readonly PlacedGlyph[],
  span: number,
  act: Act,
): (ShapeItem | GroupItem)[] {
  const {
    prepared,
    layer,
    read,
    setting: { layout, spans, matrix, size, bent },
    seconds,
  } = at;
  const { content } = layer;
  const parts = partsFor(layout);
  const heavier = Math.round(act.weight / 4) * 4;
  let shown = glyphs;
  let variant = '';
  let offset = 0;
  if (act.scramble >= 0.5) {
    // Another letter of the same text, in the middle of this one's place; which one changes by the clock, the same on
    // every machine.
    const inked = layout.glyphs.filter((g) => g.path !== '');
    const pick = inked[(Math.floor(seconds * SCRAMBLE_RATE) * 31 + glyphs[0]!.index * 17) % Math.max(1, inked.length)];
    if (pick) {
      shown = [pick];
      offset = glyphs[0]!.x + glyphs[0]!.advance / 2 - (pick.x + pick.advance / 2);
      variant = `x${pick.index}`;
    }
  }
  const key = `u${parts.id}#${name}w${heavier}${variant}`;
  let path = parts.paths.get(key);
  if (path === undefined) {
    path = shown
      .map((g) => (heavier === 0 ? g.path : g.outlineAt(Math.max(1, Math.min(1000, g.weight + heavier)))))
      .join('');
    parts.paths.set(key, path);
  }
  const coloured = shown.filter((g) => g.colours);
  if (path === '' && coloured.length === 0) return [];
  const move: Matrix = act.scramble >= 0.5 ? [1, 0, 0, 1, offset, glyphs[0]!.y - shown[0]!.y] : [1, 0, 0, 1, 0, 0];
  const along = bent ? multiply(act.matrix, bent.frame(glyphs[0]!.x + glyphs[0]!.advance / 2)) : act.matrix;
  const own = multiply(matrix, multiply(along, move));
  const spanColour = spans[span]?.colour;
  const base = spanColour
    ? ({ type: 'solid', colour: spanColour } as const)
    : (pictureFill(prepared, read, layout.box) ?? fillOf(content.gradient, read, layout.box));
  const { tint } = act;
  const fill = tinted(base, tint);
  const main = mainColour(base);
  const isDrawing = act.draw < 1;
  const width = read.number('strokeWidth') * (UNITS / size);
  const whole = isDrawing ? longestContour(key, path) : 0;
  const stroke = isDrawing
    ? act.draw > 0
      ? {
          colour: width > 0 ? read.colour('stroke') : tint(main),
          width: width > 0 ? width : FILAMENT_WIDTH * UNITS,
          behind: false,
        }
      : null
    : width > 0
      ? { colour: read.colour('stroke'), width, behind: true }
      : null;
  const dash = isDrawing ? { on: whole * act.draw, off: whole * 2, shift: 0 } : undefined;
  const outlines = isDrawing ? [] : outlinesOf(content.dress.outlines, width);
  const edge = act.wipe ? wipeEdge(act.wipe) : undefined;
  const clip = act.clip ? { matrix: multiply(matrix, act.clip.matrix), box: act.clip.box } : undefined;
  const blur = blurLevel(act.blur * UNITS * scaleOf(matrix));
  const print = `${key}|${own.map((n) => n.toFixed(3)).join()}|${act.opacity.toFixed(4)}|${act.ink.toFixed(3)}|${printFill(fill)}|${stroke ? `${stroke.colour}${stroke.width}` : ''}${dash ? `d${dash.on.toFixed(1)}` : ''}${edge ? `w${edge.to[0].toFixed(1)}` : ''}${clip ? `c${clip.matrix.join()}` : ''}${outlines.map((o) => o.colour + o.width).join()}`;
  const common = {
    kind: 'shape' as const,
    layerId: layer.id,
    path,
    pathKey: key,
    matrix: own,
    box: layout.box,
    blend: 'normal' as const,
    ...(edge ? { wipe: edge } : {}),
    ...(clip ? { clip } : {}),
  };
  const inColours =
    coloured.length > 0 && act.ink > INVISIBLE
      ? [withBlur(colouredItem(common, coloured, act, tint(main), print), blur)]
      : [];
  if (path === '') return inColours;
  // While the outline draws itself the fill fades in by itself, so the two are items of their own.
  const items: (ShapeItem | GroupItem)[] = inColours;
  if (act.ink > INVISIBLE)
    items.push(
      withBlur(
        {
          ...common,
          opacity: act.opacity * act.ink,
          fill,
          stroke: isDrawing ? null : stroke,
          fingerprint: `f${print}`,
          ...(outlines.length > 0 ? { outlines } : {}),
        },
        blur,
      ),
    );
  if (isDrawing && stroke)
    items.push(
      withBlur(
        { ...common, opacity: act.opacity, fill: null, stroke, fingerprint: `s${print}`, ...(dash ? { dash } : {}) },
        blur,
      ),
    );
  return items;
}

/** Letters in colours of their own: their layers as one whole, so that none shines through another as they fade. */
function colouredItem(
  common: Pick<ShapeItem, 'layerId' | 'pathKey' | 'matrix' | 'box' | 'blend' | 'wipe' | 'clip'>,
  glyphs: readonly PlacedGlyph[],
  { opacity, ink, tint }: Act,
  textColour: Colour,
  print: string,
): GroupItem {
  const { wipe, clip, ...rest } = common;
  const children = glyphs.flatMap((glyph) =>
    (glyph.colours ?? []).map((layer, i): ShapeItem => {
      const colour = layer.colour === null ? textColour : tint(layer.colour);
      return {
        ...rest,
        kind: 'shape',
        path: layer.path,
        pathKey: `${common.pathKey}c${glyph.index}.${i}`,
        opacity: 1,
        fill: { type: 'solid', colour },
        stroke: null,
        fingerprint: `${print}|c${glyph.index}.${i}${colour}`,
      };
    }),
  );
  return {
    kind: 'group',
    holds: 'parts',
    layerId: common.layerId,
    children,
    under: [],
    matrix: common.matrix,
    box: common.box,
    opacity: opacity * ink,
    blend: common.blend,
    own: `${opacity * ink}`,
    ...(wipe ? { wipe } : {}),
    ...(clip ? { clip } : {}),
    fingerprint: `c${children.map((child) => child.fingerprint).join('~')}|${print}`,
  };
}

/** Outlines outside one another: each stroke is as wide as all within it and itself. The outermost comes first. */
function outlinesOf(
  outlines: TextLayer['content']['dress']['outlines'],
  innermost: number,
): { colour: Colour; width: number }[] {
  let width = innermost;
  return outlines.map((o) => ({ colour: o.colour, width: (width += o.width * UNITS) })).reverse();
}
