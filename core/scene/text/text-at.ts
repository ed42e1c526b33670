import { parametersOf } from '../../motion';
import type { UnitKind, Vector } from '../../motion';
import { inCase, layerMatrix } from '../../piece';
import type { TextLayer, TextSpan } from '../../piece';
import { UNITS } from '../../text';
import type { PlacedGlyph, TextLayout, TextStyle } from '../../text';
import type { Seconds } from '../../time';
import { NO_ACT, withState } from '../movement/act';
import type { Act } from '../movement/act';
import { bentLine } from './bent-line';
import type { BentLine } from './bent-line';
import { countedText } from './count-up';
import { castGesture, castState } from '../movement/gesture-timing';
import type { CastGesture, PreparedGesture } from '../movement/gesture-timing';
import type { LayerReader } from '../layers/layer-reader';
import { IDENTITY, multiply } from '../../geometry';
import type { Matrix } from '../../geometry';
import type { LayerAt } from '../layers/layer-at';
import type { PreparedLayer } from '../layers/prepare';
import { layerStyle } from './layer-style';
import { setInRoom } from './in-room';
import { inRunSize } from './run-size';
import { textUnits } from './text-parts';
import type { TextUnits } from './text-parts';

/** Lays text out; cached by the host that owns the fonts. */
export type LayoutText = (text: string, style: TextStyle) => { key: string; layout: TextLayout };

/** From coarse to fine: a letter moves within its word, the word within its line. */
export const COARSE_TO_FINE: readonly UnitKind[] = ['whole', 'line', 'word', 'letter'];
/** Opacity below which nothing can change an 8-bit pixel. */
export const INVISIBLE = 1 / 512;

/** What belongs to a layout and is needed frame after frame. */
interface Parts {
  readonly id: number;
  readonly units: Map<UnitKind, TextUnits>;
  readonly casts: WeakMap<PreparedGesture, CastGesture>;
  readonly paths: Map<string, string>;
}
const partsOf = new WeakMap<TextLayout, Parts>();
let layouts = 0;

export function partsFor(layout: TextLayout): Parts {
  let parts = partsOf.get(layout);
  if (!parts) {
    parts = { id: layouts++, units: new Map(), casts: new WeakMap(), paths: new Map() };
    partsOf.set(layout, parts);
  }
  return parts;
}

export function unitsFor(text: string, layout: TextLayout, kind: UnitKind): TextUnits {
  const { units } = partsFor(layout);
  let found = units.get(kind);
  if (!found) units.set(kind, (found = textUnits(text, layout, kind)));
  return found;
}

export function castFor(gesture: PreparedGesture, text: string, layout: TextLayout): CastGesture {
  const { casts } = partsFor(layout);
  let cast = casts.get(gesture);
  if (!cast) {
    const { units } = unitsFor(text, layout, gesture.use.unit);
    const words = unitsFor(text, layout, 'word');
    cast = castGesture(
      gesture,
      units.map((unit) => ({ x: unit.pivot[0], y: unit.pivot[1] })),
      (i) => words.unitOf.get(units[i]!.glyphs.find((g) => words.unitOf.has(g))!) ?? -1,
    ); // undefined finds nothing
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

/** Words laid out where they stand. */
export interface Setting {
  readonly text: string;
  readonly spans: readonly TextSpan[];
  readonly layout: TextLayout;
  readonly key: string;
  /** Pixels of the lead format an em has. */
  readonly size: number;
  /** Layout units to pixels of the format. */
  readonly matrix: Matrix;
  /** The curve the line is bent along, if it is. */
  readonly bent: BentLine | null;
  /** Whether their room is too small for them, whatever was done. */
  readonly isTooLong: boolean;
  /** Whether they are shorter than they were typed, to fit their room. */
  readonly isShortened: boolean;
}

/** Lays the words out where they stand: about the layer's position, or filling their place in the frame. */
export function setText({ prepared, read, seconds, outer, context }: LayerAt, layer: TextLayer): Setting {
  const { content } = layer;
  const { format } = context.scene;
  const words = shownText(prepared, layer, seconds);
  const { area } = content;
  const { size: wanted, style } = layerStyle(prepared, layer, read, format);
  const laid = context.layoutText(words, style);
  const room = area || content.along ? null : content.room;
  const own = room
    ? setInRoom(context.layoutText, laid.key, words, style, wanted, {
        ...room,
        width: Math.max(1, room.width + prepared.place.stretch[0]),
      })
    : { text: words, spans: style.spans ?? [], size: wanted, isTooLong: false, ...laid };
  const { text } = own;
  const { key, layout } = area?.run ? inRunSize(context, prepared, area.run, text, style, own) : own;
  const size = layout.fittedSize ?? own.size;
  const k = size / UNITS;
  let origin: Readonly<Vector> = [format.width / 2, format.height / 2];
  if (area) {
    const half = layout.edges.bottom * k * prepared.fit; // the text stands on its middle
    const x = area.x + (content.align === 'left' ? 0 : content.align === 'right' ? area.width : area.width / 2);
    const y =
      area.y * format.height +
      (area.valign === 'top'
        ? half
        : area.valign === 'bottom'
          ? area.height * format.height - half
          : (area.height * format.height) / 2);
    origin = [x * format.width, y];
  }
  const inFrame = layerMatrix(read, prepared.place, origin);
  const matrix = outer.matrix === IDENTITY ? inFrame : multiply(outer.matrix, inFrame);
  const bent = content.along && bentLine(content.along, layout, read.number('bend'), read.number('pathShift'), k);
  return {
    text,
    isTooLong: own.isTooLong,
    isShortened: text !== words,
    spans: own.spans,
    layout,
    key,
    size,
    bent,
    matrix: [matrix[0] * k, matrix[1] * k, matrix[2] * k, matrix[3] * k, matrix[4], matrix[5]],
  };
}

/** A text layer at one time, with what moves it. */
export interface TextAt {
  readonly prepared: PreparedLayer;
  readonly layer: TextLayer;
  readonly read: LayerReader;
  readonly setting: Setting;
  readonly seconds: Seconds;
  readonly active: readonly CastGesture[];
}

/** What the gestures down to a fineness make of the unit a glyph stands in. */
export function actOf(
  { setting: { text, layout, bent }, seconds, active }: TextAt,
  glyph: PlacedGlyph,
  finest: UnitKind,
): Act {
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
    const frame = bent ? bent.frame(unit.pivot[0]) : null;
    act = withState(
      act,
      state,
      {
        pivot: unit.pivot,
        box: unit.box,
        em: UNITS,
        fromMiddle: inLine ? inLine.indexOf(unit) - (inLine.length - 1) / 2 : 0,
        ...(frame ? { frame } : {}),
      },
      use.colour,
    );
  }
  return act;
}
