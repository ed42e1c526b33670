import type { Colour } from '../../colour';
import type { UnitKind } from '../../motion';
import { UNITS } from '../../text';
import type { TextLayout } from '../../text';
import { wipeEdge } from '../movement/act';
import { bentBox } from './bent-line';
import type { ShapeItem } from '../list/display-list';
import { castState } from '../movement/gesture-timing';
import { multiply, roundedRectanglePath, tightBox } from '../../geometry';
import type { Box, Matrix } from '../../geometry';
import { COARSE_TO_FINE, INVISIBLE, actOf, castFor, unitsFor } from './text-at';
import type { TextAt } from './text-at';

/** Letters that stand between the baseline and the height of capitals, but for accents and descenders. */
const OF_CAPITALS = /[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}\p{Script=Common}\p{Script=Inherited}]/u;

interface Reach {
  readonly above: number;
  readonly below: number;
}
const reaches = new WeakMap<TextLayout, Reach>();

/**
 * How far a band reaches from the baseline, units: to the height of capitals, and around all ink of scripts that have
 * none. The same for all words of a text.
 */
function reachOf(text: string, layout: TextLayout): Reach {
  const known = reaches.get(layout);
  if (known) return known;
  let [above, below] = [layout.capHeight, 0];
  for (const { index, path, y } of layout.glyphs) {
    const box = OF_CAPITALS.test(String.fromCodePoint(text.codePointAt(index) ?? 32)) ? null : tightBox(path);
    if (!box) continue;
    above = Math.max(above, y - box[1]);
    below = Math.max(below, box[3] - y);
  }
  const reach = { above, below };
  reaches.set(layout, reach);
  return reach;
}

/** Bands and rules: they go with the line, word or whole they belong to, and fade with its letters. */
export function bandItems(at: TextAt): ShapeItem[] {
  const {
    layer,
    read,
    setting: { text, layout, matrix, bent },
    active,
  } = at;
  const { band, rule } = layer.content.dress;
  if (!band && !rule) return [];
  const reveal = Math.min(1, Math.max(0, read.number('reveal')));
  if (reveal <= 0) return [];
  const out: ShapeItem[] = [];
  const add = (
    kind: UnitKind,
    name: string,
    colour: Colour,
    boxOf: (box: Box) => Box,
    radius: number,
    reach: Reach,
  ) => {
    const finer = active.filter(
      (cast) => COARSE_TO_FINE.indexOf(cast.prepared.use.unit) > COARSE_TO_FINE.indexOf(kind),
    );
    for (const unit of unitsFor(text, layout, kind).units) {
      const act = actOf(at, unit.glyphs[0]!, kind);
      // Where only the letters move, the band is there as much as they are.
      const inked = finer.length === 0 ? [] : unit.glyphs.filter((g) => g.path !== '');
      const share =
        inked.length === 0
          ? 1
          : inked.reduce((sum, g) => sum + Math.min(1, actOf(at, g, 'letter').opacity), 0) / inked.length;
      const opacity = act.opacity * share;
      if (opacity < INVISIBLE) continue;
      const whole = boxOf([
        unit.box[0],
        Math.min(...unit.glyphs.map((g) => g.y)) - reach.above,
        unit.box[2],
        Math.max(...unit.glyphs.map((g) => g.y)) + reach.below,
      ]);
      const width = (whole[2] - whole[0]) * reveal;
      const isRtl = layout.lines[unit.line]?.rtl ?? false;
      const left = isRtl ? whole[2] - width : whole[0];
      const height = whole[3] - whole[1];
      const fingerprint = `${name}${width.toFixed(2)},${height.toFixed(2)}|${colour}|${opacity.toFixed(4)}|${act.tint('#808080')}`;
      if (bent) {
        const own = multiply(matrix, act.matrix);
        const path = bentBox(bent, [left, whole[1], left + width, whole[3]]);
        out.push({
          kind: 'shape',
          layerId: layer.id,
          path,
          pathKey: path,
          matrix: own,
          box: layout.box,
          opacity,
          blend: 'normal',
          fill: { type: 'solid', colour: act.tint(colour) },
          stroke: null,
          fingerprint: `${fingerprint}|${own.map((n) => n.toFixed(3)).join()}|${path}`,
        });
        continue;
      }
      const path = roundedRectanglePath(width, height, Math.min(radius, height / 2, width / 2));
      const own = multiply(multiply(matrix, act.matrix), [1, 0, 0, 1, left + width / 2, (whole[1] + whole[3]) / 2]);
      const edge = act.wipe ? wipeEdge(act.wipe) : null;
      const centre = left + width / 2;
      out.push({
        kind: 'shape',
        layerId: layer.id,
        path,
        pathKey: `q${width.toFixed(2)},${height.toFixed(2)},${radius.toFixed(2)}`,
        matrix: own,
        box: [-width / 2, -height / 2, width / 2, height / 2],
        opacity,
        blend: 'normal',
        fill: { type: 'solid', colour: act.tint(colour) },
        stroke: null,
        fingerprint: `${fingerprint}|${own.map((n) => n.toFixed(3)).join()}${edge ? `w${edge.to[0].toFixed(1)}` : ''}`,
        ...(edge ? { wipe: { from: [edge.from[0] - centre, 0], to: [edge.to[0] - centre, 0] } } : {}),
        ...(act.clip ? { clip: { matrix: multiply(matrix, act.clip.matrix), box: act.clip.box } } : {}),
      });
    }
  };
  if (band)
    add(
      band.per === 'text' ? 'whole' : band.per,
      'b',
      band.colour,
      ([l, t, r, b]) => [l - band.padX * UNITS, t - band.padY * UNITS, r + band.padX * UNITS, b + band.padY * UNITS],
      band.radius * UNITS,
      reachOf(text, layout),
    );
  if (rule) {
    const thick = rule.thickness * UNITS;
    const cap = layout.capHeight;
    add(
      'line',
      'r',
      rule.colour,
      ([l, , r, b]) =>
        rule.kind === 'under'
          ? [l, b + cap * 0.16, r, b + cap * 0.16 + thick]
          : rule.kind === 'through'
            ? [l, b - cap / 2 - thick / 2, r, b - cap / 2 + thick / 2]
            : [l - cap * 0.1, b - thick * 0.72, r + cap * 0.1, b + thick * 0.28],
      rule.kind === 'marker' ? 0 : thick / 2,
      { above: cap, below: 0 },
    );
  }
  return out;
}

/** Seconds the caret stays after the last letter, blinking. */
const CARET_STAYS = 1.2;

/** The caret of words that are being typed. */
export function caretItem(at: TextAt): ShapeItem | null {
  const {
    prepared,
    layer,
    read,
    setting: { text, layout, matrix, bent },
    seconds,
  } = at;
  const gesture = prepared.gestures.find((g) => g.definition?.does === 'types');
  if (!gesture) return null;
  const cast = castFor(gesture, text, layout);
  const isExit = gesture.use.role === 'exit';
  const begins = Math.min(...cast.starts);
  const ends = Math.max(...cast.starts) + cast.each;
  if (seconds < begins - (isExit ? 0.2 : 0.4) || seconds > ends + (isExit ? 0.1 : CARET_STAYS)) return null;
  const isTyping = seconds >= begins && seconds <= ends;
  if (!isTyping && Math.floor(seconds * 3) % 2 === 1) return null;
  const { units } = unitsFor(text, layout, gesture.use.unit);
  const shown = units.filter((unit) => (castState(cast, unit.index, seconds)?.opacity ?? 1) >= 0.5);
  const last = shown[shown.length - 1];
  const cap = layout.capHeight;
  const first = units[0];
  if (!first) return null;
  const [x, y] = last ? [last.box[2], last.glyphs[last.glyphs.length - 1]!.y] : [first.box[0], first.glyphs[0]!.y];
  const path = roundedRectanglePath(cap * 0.09, cap * 1.35, 0);
  const place: Matrix = [1, 0, 0, 1, x + cap * 0.14, y - cap / 2];
  const own = multiply(matrix, bent ? multiply(bent.frame(x), place) : place);
  const colour = read.colour('fill');
  return {
    kind: 'shape',
    layerId: layer.id,
    path,
    pathKey: `caret${cap}`,
    matrix: own,
    box: [-cap * 0.045, -cap * 0.675, cap * 0.045, cap * 0.675],
    opacity: 1,
    blend: 'normal',
    fill: { type: 'solid', colour },
    stroke: null,
    fingerprint: `caret${own.join()}${colour}`,
  };
}
