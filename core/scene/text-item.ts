import type { Colour } from '../colour';
import { parametersOf } from '../motion';
import type { UnitKind } from '../motion';
import { inCase, smallCapitals } from '../piece';
import type { TextLayer, TextSpan } from '../piece';
import { UNITS } from '../text';
import type { PlacedGlyph, TextLayout, TextStyle } from '../text';
import type { Seconds } from '../time';
import { NO_ACT, wipeEdge, withState } from './act';
import type { Act } from './act';
import { countedText } from './count-up';
import type { GroupItem, ShapeItem, StillItem, UnderEffect } from './display-list';
import { castGesture, castState, isAtWork } from './gesture-timing';
import type { CastGesture, PreparedGesture } from './gesture-timing';
import { LayerReader, fillOf, layerMatrix, printFill, shapeItem } from './layer-reader';
import { multiply } from './matrix';
import type { Box, Matrix } from './matrix';
import { longestContour } from './path-length';
import type { PreparedLayer, PreparedScene } from './prepare';
import { roundedRectanglePath } from './shape-paths';
import { textUnits } from './text-parts';
import type { TextUnits } from './text-parts';

/** Lays text out; cached by the host that owns the fonts. */
export type LayoutText = (text: string, style: TextStyle) => { key: string; layout: TextLayout };

/** From coarse to fine: a letter moves within its word, the word within its line. */
const COARSE_TO_FINE: readonly UnitKind[] = ['whole', 'line', 'word', 'letter'];
/** Width of an outline that draws itself where the layer has none, em. */
const FILAMENT_WIDTH = 0.018;
/** Opacity below which nothing can change an 8-bit pixel. */
export const INVISIBLE = 1 / 512;

/** How much larger a matrix draws, as a mean of both directions. */
const scaleOf = (m: Matrix): number => Math.sqrt(Math.abs(m[0] * m[3] - m[1] * m[2]));

/** What belongs to a layout and is needed frame after frame. */
interface Parts {
  readonly id: number;
  readonly units: Map<UnitKind, TextUnits>;
  readonly casts: WeakMap<PreparedGesture, CastGesture>;
  readonly paths: Map<string, string>;
}
const partsOf = new WeakMap<TextLayout, Parts>();
let layouts = 0;

function partsFor(layout: TextLayout): Parts {
  let parts = partsOf.get(layout);
  if (!parts) {
    parts = { id: layouts++, units: new Map(), casts: new WeakMap(), paths: new Map() };
    partsOf.set(layout, parts);
  }
  return parts;
}

function unitsFor(text: string, layout: TextLayout, kind: UnitKind): TextUnits {
  const { units } = partsFor(layout);
  let found = units.get(kind);
  if (!found) units.set(kind, (found = textUnits(text, layout, kind)));
  return found;
}

function castFor(gesture: PreparedGesture, text: string, layout: TextLayout): CastGesture {
  const { casts } = partsFor(layout);
  let cast = casts.get(gesture);
  if (!cast) {
    const { units } = unitsFor(text, layout, gesture.use.unit);
    const words = unitsFor(text, layout, 'word');
    cast = castGesture(gesture, units.map((unit) => ({ x: unit.pivot[0], y: unit.pivot[1] })), (i) => words.unitOf.get(units[i]!.glyphs.find((g) => words.unitOf.has(g))!) ?? -1); // undefined finds nothing
    casts.set(gesture, cast);
  }
  return cast;
}

/** The words as they are at a time: in their case, with numbers that count. */
function shownText(prepared: PreparedLayer, layer: TextLayer, seconds: Seconds): string {
  let text = inCase(layer.content.text, layer.content.letterCase);
  for (const gesture of prepared.gestures) {
    const { definition, use } = gesture;
    if (definition?.does !== 'counts' || !/\d/.test(text)) continue;
    const cast = castGesture(gesture, [{ x: 0, y: 0 }], () => 0);
    const u = Math.max(0, (seconds - cast.starts[0]!) / cast.each);
    // Slower towards the end, so that the last digits can be read on the way in.
    text = countedText(text, parametersOf(use, definition).from ?? 0, 1 - (1 - Math.min(1, u)) ** 3);
  }
  return text;
}

/** The spans a layer is set with; small capitals come first, so that what was set by hand counts. */
const spansOf = ({ content }: TextLayer): readonly TextSpan[] => (content.letterCase === 'small' ? [...smallCapitals(content.text), ...content.spans] : content.spans);

interface Setting {
  readonly text: string;
  readonly spans: readonly TextSpan[];
  readonly layout: TextLayout;
  readonly key: string;
  /** Pixels of the lead format an em has. */
  readonly size: number;
  /** Layout units to pixels of the format. */
  readonly matrix: Matrix;
}

/** Lays the words out where they stand: about the layer's position, or filling their place in the frame. */
function setText(prepared: PreparedLayer, layer: TextLayer, read: LayerReader, scene: PreparedScene, seconds: Seconds, layoutText: LayoutText): Setting {
  const { content } = layer;
  const { format } = scene;
  const text = shownText(prepared, layer, seconds);
  const wanted = Math.max(0.01, read.number('size'));
  const { area, features } = content;
  const spans = spansOf(layer);
  const style: TextStyle = {
    family: content.family,
    italic: content.italic,
    weight: read.number('weight'),
    tracking: read.number('tracking'),
    leading: read.number('leading'),
    align: content.align,
    wrapWidth: content.wrapWidth === null ? null : content.wrapWidth / wanted,
    ...(features.length > 0 ? { features } : {}),
    ...(spans.length > 0 ? { spans } : {}),
    ...(area ? { fit: { width: (area.width * format.width) / prepared.fit, height: (area.height * format.height) / prepared.fit, maxSize: wanted } } : {}),
  };
  const { key, layout } = layoutText(text, style);
  const size = layout.fittedSize ?? wanted;
  const k = size / UNITS;
  let origin: readonly [number, number] = [format.width / 2, format.height / 2];
  if (area) {
    const top = (layout.lines[0]?.baseline ?? 0) - layout.capHeight;
    const half = -top * k * prepared.fit; // the origin is in the middle between the first cap height and the last baseline
    const x = area.x + (content.align === 'left' ? 0 : content.align === 'right' ? area.width : area.width / 2);
    const y = area.y * format.height + (area.valign === 'top' ? half : area.valign === 'bottom' ? area.height * format.height - half : (area.height * format.height) / 2);
    origin = [x * format.width, y];
  }
  const matrix = layerMatrix(prepared, read, origin);
  return { text, spans, layout, key, size, matrix: [matrix[0] * k, matrix[1] * k, matrix[2] * k, matrix[3] * k, matrix[4], matrix[5]] };
}

/** Everything a text layer shows at a time. A plain text is one shape; one that moves in parts or is dressed is a group. */
export function textItem(prepared: PreparedLayer, layer: TextLayer, scene: PreparedScene, seconds: Seconds, layoutText: LayoutText, opacity: number): StillItem | null {
  const read = new LayerReader(prepared, seconds);
  const setting = setText(prepared, layer, read, scene, seconds, layoutText);
  const { text, layout, key, size, matrix } = setting;
  const { content } = layer;
  const { dress } = content;
  const active = prepared.gestures.map((g) => castFor(g, text, layout)).filter((cast) => isAtWork(cast, seconds)).sort((a, b) => COARSE_TO_FINE.indexOf(a.prepared.use.unit) - COARSE_TO_FINE.indexOf(b.prepared.use.unit));
  const isDressed = dress.band || dress.shadow || dress.long || dress.glow || dress.rule || dress.outlines.length > 0;
  const hasColours = content.spans.some((span) => span.colour);
  if (active.length === 0 && !isDressed && !hasColours) {
    const item = shapeItem(prepared, read, { path: layout.path, pathKey: `t${key}`, box: layout.box, matrix, unitsPerPixel: UNITS / size }, content.gradient, opacity);
    return withBlur(item, read.number('blur') * prepared.fit);
  }
  const finest = active[active.length - 1]?.prepared.use.unit ?? 'whole';
  const stage: Stage = { prepared, layer, read, setting, seconds, active };
  const children = bandItems(stage);
  const { units } = unitsFor(text, layout, finest);
  for (const unit of units) {
    const act = actOf(stage, unit.glyphs[0]!, finest);
    if (act.opacity < INVISIBLE || act.wipe?.share === 0) continue;
    for (const [span, glyphs] of bySpan(unit.glyphs)) children.push(...lettersItem(stage, `${finest}${unit.index}s${span}`, glyphs, span, act));
  }
  const caret = caretItem(stage);
  if (caret) children.push(caret);
  if (children.length === 0) return null;
  const under = underEffects(dress, UNITS * scaleOf(matrix));
  const fingerprint = `${children.map((c) => c.fingerprint).join('~')}|${under.map((u) => JSON.stringify(u)).join()}|${opacity}|${layer.blend}`;
  const group: GroupItem = { kind: 'group', layerId: layer.id, children, under, matrix, box: layout.box, opacity, blend: layer.blend, fingerprint };
  return withBlur(group, read.number('blur') * prepared.fit);
}

/** @param blur - pixels of the format. */
export function withBlur<T extends StillItem>(item: T, blur: number): T {
  return blur > 0.05 ? { ...item, blur, fingerprint: `${item.fingerprint}b${blur.toFixed(2)}` } : item;
}

interface Stage {
  readonly prepared: PreparedLayer;
  readonly layer: TextLayer;
  readonly read: LayerReader;
  readonly setting: Setting;
  readonly seconds: Seconds;
  readonly active: readonly CastGesture[];
}

/** What the gestures down to a fineness make of the unit a glyph stands in. */
function actOf({ setting: { text, layout }, seconds, active }: Stage, glyph: PlacedGlyph, finest: UnitKind): Act {
  let act = NO_ACT;
  for (const cast of active) {
    const { use } = cast.prepared;
    if (COARSE_TO_FINE.indexOf(use.unit) > COARSE_TO_FINE.indexOf(finest)) continue;
    const { units, unitOf } = unitsFor(text, layout, use.unit);
    const index = unitOf.get(glyph);
    if (index === undefined) continue;
    const unit = units[index]!;
    const state = castState(cast, index, seconds);
    if (!state) continue;
    const inLine = state.spread === 0 ? null : units.filter((u) => u.line === unit.line);
    act = withState(act, state, { pivot: unit.pivot, box: unit.box, em: UNITS, fromMiddle: inLine ? inLine.indexOf(unit) - (inLine.length - 1) / 2 : 0 }, use.colour);
  }
  return act;
}

function bySpan(glyphs: readonly PlacedGlyph[]): Map<number, PlacedGlyph[]> {
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
const blurLevel = (blur: number): number => (blur > 0.05 ? Math.exp(Math.round(Math.log(blur) / BLUR_STEP) * BLUR_STEP) : 0);

/** Letters a second that stand in while a letter is scrambled. */
const SCRAMBLE_RATE = 14;

function lettersItem(stage: Stage, name: string, glyphs: readonly PlacedGlyph[], span: number, act: Act): ShapeItem[] {
  const { layer, read, setting: { layout, spans, matrix, size }, seconds } = stage;
  const { content } = layer;
  const parts = partsFor(layout);
  const heavier = Math.round(act.weight / 4) * 4;
  let shown = glyphs;
  let variant = '';
  let offset = 0;
  if (act.scramble >= 0.5) {
    // Another letter of the same text, in the middle of this one's place; which one changes by the clock, the same on every machine.
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
    path = shown.map((g) => (heavier === 0 ? g.path : g.outlineAt(Math.max(1, Math.min(1000, g.weight + heavier))))).join('');
    parts.paths.set(key, path);
  }
  if (path === '') return [];
  const move: Matrix = act.scramble >= 0.5 ? [1, 0, 0, 1, offset, glyphs[0]!.y - shown[0]!.y] : [1, 0, 0, 1, 0, 0];
  const own = multiply(matrix, multiply(act.matrix, move));
  const spanColour = spans[span]?.colour;
  const base = fillOf(spanColour ? 'none' : content.gradient, read, layout.box);
  const { tint } = act;
  const fill = base.type === 'solid' ? { ...base, colour: tint(spanColour ?? base.colour) } : { ...base, start: tint(base.start), end: tint(base.end) };
  const main = base.type === 'solid' ? (spanColour ?? base.colour) : base.start;
  const isDrawing = act.draw < 1;
  const width = read.number('strokeWidth') * (UNITS / size);
  const whole = isDrawing ? longestContour(key, path) : 0;
  const stroke = isDrawing
    ? (act.draw > 0 ? { colour: width > 0 ? read.colour('stroke') : tint(main), width: width > 0 ? width : FILAMENT_WIDTH * UNITS, behind: false } : null)
    : width > 0 ? { colour: read.colour('stroke'), width, behind: true } : null;
  const dash = isDrawing ? { on: whole * act.draw, off: whole * 2, shift: 0 } : undefined;
  const outlines = isDrawing ? [] : outlinesOf(content.dress.outlines, width);
  const edge = act.wipe ? wipeEdge(act.wipe) : undefined;
  const clip = act.clip ? { matrix: multiply(matrix, act.clip.matrix), box: act.clip.box } : undefined;
  const blur = blurLevel(act.blur * UNITS * scaleOf(matrix));
  const print = `${key}|${own.map((n) => n.toFixed(3)).join()}|${act.opacity.toFixed(4)}|${act.ink.toFixed(3)}|${printFill(fill)}|${stroke ? `${stroke.colour}${stroke.width}` : ''}${dash ? `d${dash.on.toFixed(1)}` : ''}${edge ? `w${edge.to[0].toFixed(1)}` : ''}${clip ? `c${clip.matrix.join()}` : ''}${outlines.map((o) => o.colour + o.width).join()}`;
  const common = { kind: 'shape' as const, layerId: layer.id, path, pathKey: key, matrix: own, box: layout.box, blend: 'normal' as const, ...(edge ? { wipe: edge } : {}), ...(clip ? { clip } : {}) };
  // While the outline draws itself the fill fades in by itself, so the two are items of their own.
  const items: ShapeItem[] = [];
  if (act.ink > INVISIBLE) items.push(withBlur({ ...common, opacity: act.opacity * act.ink, fill, stroke: isDrawing ? null : stroke, fingerprint: `f${print}`, ...(outlines.length > 0 ? { outlines } : {}) }, blur));
  if (isDrawing && stroke) items.push(withBlur({ ...common, opacity: act.opacity, fill: null, stroke, fingerprint: `s${print}`, ...(dash ? { dash } : {}) }, blur));
  return items;
}

/** Outlines outside one another: each stroke is as wide as all within it and itself. The outermost comes first. */
function outlinesOf(outlines: TextLayer['content']['dress']['outlines'], innermost: number): { colour: Colour; width: number }[] {
  let width = innermost;
  return outlines.map((o) => ({ colour: o.colour, width: (width += o.width * UNITS) })).reverse();
}

function underEffects(dress: TextLayer['content']['dress'], em: number): UnderEffect[] {
  const { shadow, long, glow } = dress;
  const out: UnderEffect[] = [];
  if (long) out.push({ type: 'long', colour: long.colour, x: Math.cos((long.angle * Math.PI) / 180) * long.length * em, y: Math.sin((long.angle * Math.PI) / 180) * long.length * em });
  if (shadow) out.push({ type: 'shadow', colour: shadow.colour, x: shadow.x * em, y: shadow.y * em, blur: shadow.blur * em });
  if (glow) out.push({ type: 'shadow', colour: glow.colour, x: 0, y: 0, blur: glow.radius * em }, { type: 'shadow', colour: glow.colour, x: 0, y: 0, blur: glow.radius * em * 0.4 });
  return out;
}

/** Bands and rules: they go with the line, word or whole they belong to, and fade with its letters. */
function bandItems(stage: Stage): ShapeItem[] {
  const { layer, read, setting: { text, layout, matrix }, active } = stage;
  const { band, rule } = layer.content.dress;
  if (!band && !rule) return [];
  const reveal = Math.min(1, Math.max(0, read.number('reveal')));
  if (reveal <= 0) return [];
  const out: ShapeItem[] = [];
  const add = (kind: UnitKind, name: string, colour: Colour, boxOf: (box: Box) => Box, radius: number) => {
    const finer = active.filter((cast) => COARSE_TO_FINE.indexOf(cast.prepared.use.unit) > COARSE_TO_FINE.indexOf(kind));
    for (const unit of unitsFor(text, layout, kind).units) {
      const act = actOf(stage, unit.glyphs[0]!, kind);
      // Where only the letters move, the band is there as much as they are.
      const inked = finer.length === 0 ? [] : unit.glyphs.filter((g) => g.path !== '');
      const share = inked.length === 0 ? 1 : inked.reduce((sum, g) => sum + Math.min(1, actOf(stage, g, 'letter').opacity), 0) / inked.length;
      const opacity = act.opacity * share;
      if (opacity < INVISIBLE) continue;
      const whole = boxOf([unit.box[0], Math.min(...unit.glyphs.map((g) => g.y)) - layout.capHeight, unit.box[2], Math.max(...unit.glyphs.map((g) => g.y))]);
      const width = (whole[2] - whole[0]) * reveal;
      const [left] = whole;
      const height = whole[3] - whole[1];
      const path = roundedRectanglePath(width, height, Math.min(radius, height / 2, width / 2));
      const own = multiply(multiply(matrix, act.matrix), [1, 0, 0, 1, left + width / 2, (whole[1] + whole[3]) / 2]);
      const edge = act.wipe ? wipeEdge(act.wipe) : null;
      const centre = left + width / 2;
      out.push({
        kind: 'shape', layerId: layer.id, path, pathKey: `q${width.toFixed(2)},${height.toFixed(2)},${radius.toFixed(2)}`, matrix: own, box: [-width / 2, -height / 2, width / 2, height / 2], opacity, blend: 'normal',
        fill: { type: 'solid', colour: act.tint(colour) }, stroke: null, fingerprint: `${name}${width.toFixed(2)},${height.toFixed(2)}|${own.map((n) => n.toFixed(3)).join()}|${colour}|${opacity.toFixed(4)}${edge ? `w${edge.to[0].toFixed(1)}` : ''}`,
        ...(edge ? { wipe: { from: [edge.from[0] - centre, 0], to: [edge.to[0] - centre, 0] } } : {}),
        ...(act.clip ? { clip: { matrix: multiply(matrix, act.clip.matrix), box: act.clip.box } } : {}),
      });
    }
  };
  if (band) add(band.per === 'text' ? 'whole' : band.per, 'b', band.colour, ([l, t, r, b]) => [l - band.padX * UNITS, t - band.padY * UNITS, r + band.padX * UNITS, b + band.padY * UNITS], band.radius * UNITS);
  if (rule) {
    const thick = rule.thickness * UNITS;
    const cap = layout.capHeight;
    add('line', 'r', rule.colour, ([l, , r, b]) => (rule.kind === 'under' ? [l, b + cap * 0.16, r, b + cap * 0.16 + thick] : rule.kind === 'through' ? [l, b - cap / 2 - thick / 2, r, b - cap / 2 + thick / 2] : [l - cap * 0.1, b - thick * 0.72, r + cap * 0.1, b + thick * 0.28]), rule.kind === 'marker' ? 0 : thick / 2);
  }
  return out;
}

/** Seconds the caret stays after the last letter, blinking. */
const CARET_STAYS = 1.2;

function caretItem(stage: Stage): ShapeItem | null {
  const { prepared, layer, read, setting: { text, layout, matrix }, seconds } = stage;
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
  const own = multiply(matrix, [1, 0, 0, 1, x + cap * 0.14, y - cap / 2]);
  const colour = read.colour('fill');
  return { kind: 'shape', layerId: layer.id, path, pathKey: `caret${cap}`, matrix: own, box: [-cap * 0.045, -cap * 0.675, cap * 0.045, cap * 0.675], opacity: 1, blend: 'normal', fill: { type: 'solid', colour }, stroke: null, fingerprint: `caret${own.join()}${colour}` };
}
