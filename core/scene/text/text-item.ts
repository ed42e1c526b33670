import type { TextLayer } from '../../piece';
import { UNITS } from '../../text';
import type { TextLayout } from '../../text';
import type { BentLine } from './bent-line';
import type { DisplayItem, GroupItem, StillItem, UnderEffect } from '../list/display-list';
import { isAtWork } from '../movement/gesture-timing';
import { blurOf } from '../layers/effects';
import type { LayerAt } from '../layers/layer-at';
import { shapeItem, withBlur } from '../layers/layer-reader';
import { scaleOf, transformBox, unionBox } from '../../geometry';
import type { Box } from '../../geometry';
import { bandItems, caretItem } from './text-bands';
import { bySpan, lettersItem } from './text-letters';
import { COARSE_TO_FINE, INVISIBLE, actOf, castFor, setText, unitsFor } from './text-at';
import type { TextAt } from './text-at';

/**
 * Everything a text layer shows at a time. A plain text is one shape; one that moves in parts or is dressed is a group.
 */
export function textItem(at: LayerAt, layer: TextLayer): StillItem | null {
  const { prepared, read, seconds, opacity, outer, context } = at;
  const setting = setText(at, layer);
  const { text, layout, key, size, matrix, bent } = setting;
  const { content } = layer;
  const { dress } = content;
  const active = (context.isAtRest ? [] : prepared.gestures)
    .map((g) => castFor(g, text, layout))
    .filter((cast) => isAtWork(cast, seconds))
    .sort((a, b) => COARSE_TO_FINE.indexOf(a.prepared.use.unit) - COARSE_TO_FINE.indexOf(b.prepared.use.unit));
  const isDressed =
    dress.band || dress.shadow || dress.long || dress.solid || dress.glow || dress.rule || dress.outlines.length > 0;
  const hasColours = content.spans.some((span) => span.colour);
  if (active.length === 0 && !isDressed && !hasColours && !layout.hasColours && !bent && !content.picture) {
    const item = shapeItem(
      prepared,
      read,
      { path: layout.path, pathKey: `t${key}`, box: layout.box, matrix, unitsPerPixel: UNITS / size },
      content.gradient,
      opacity,
    );
    return withBlur(item, blurOf(at) * outer.scale);
  }
  const finest = bent ? 'letter' : (active[active.length - 1]?.prepared.use.unit ?? 'whole');
  const moved: TextAt = { prepared, layer, read, setting, seconds, active };
  const children: DisplayItem[] = bandItems(moved);
  const { units } = unitsFor(text, layout, finest);
  for (const unit of units) {
    const act = actOf(moved, unit.glyphs[0]!, finest);
    if (act.opacity < INVISIBLE || act.wipe?.share === 0) continue;
    for (const [span, glyphs] of bySpan(unit.glyphs))
      children.push(...lettersItem(moved, `${finest}${unit.index}s${span}`, glyphs, span, act));
  }
  const caret = caretItem(moved);
  if (caret) children.push(caret);
  if (children.length === 0) return null;
  const under = underEffects(dress, UNITS * scaleOf(matrix));
  const own = `${under.map((u) => JSON.stringify(u)).join()}|${opacity}|${layer.blend}`;
  const group: GroupItem = {
    kind: 'group',
    holds: 'parts',
    layerId: layer.id,
    children,
    under,
    matrix,
    box: bent ? bentExtent(bent, layout) : layout.box,
    opacity,
    blend: layer.blend,
    own,
    fingerprint: `${children.map((c) => c.fingerprint).join('~')}|${own}`,
  };
  return withBlur(group, blurOf(at) * outer.scale);
}

/** Extent of bent words in layout units. */
function bentExtent(bent: BentLine, layout: TextLayout): Box {
  const boxes = layout.glyphs.map((g) =>
    transformBox(bent.frame(g.x + g.advance / 2), [g.x, layout.box[1], g.x + g.advance, layout.box[3]]),
  );
  return boxes.reduce(unionBox, boxes[0] ?? layout.box);
}

function underEffects(dress: TextLayer['content']['dress'], em: number): UnderEffect[] {
  const { shadow, long, solid, glow } = dress;
  const out: UnderEffect[] = [];
  if (long)
    out.push({
      type: 'long',
      colour: long.colour,
      x: Math.cos((long.angle * Math.PI) / 180) * long.length * em,
      y: Math.sin((long.angle * Math.PI) / 180) * long.length * em,
    });
  if (shadow)
    out.push({ type: 'shadow', colour: shadow.colour, x: shadow.x * em, y: shadow.y * em, blur: shadow.blur * em });
  if (glow)
    out.push(
      { type: 'shadow', colour: glow.colour, x: 0, y: 0, blur: glow.radius * em },
      { type: 'shadow', colour: glow.colour, x: 0, y: 0, blur: glow.radius * em * 0.4 },
    );
  // The sides of solid letters lie over their shadows.
  if (solid)
    out.push({
      type: 'long',
      colour: solid.colour,
      far: solid.far,
      x: Math.cos((solid.angle * Math.PI) / 180) * solid.depth * em,
      y: Math.sin((solid.angle * Math.PI) / 180) * solid.depth * em,
    });
  return out;
}
