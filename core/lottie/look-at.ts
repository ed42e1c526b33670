import { alphaOf } from '../colour';
import type { Colour } from '../colour';
import { IDENTITY, boxCorners, invert, multiply, pathBounds, roundedRectanglePath, transformBox } from '../geometry';
import type { Box, Matrix } from '../geometry';
import { colourAfter } from '../paint';
import { EFFECT_KINDS, ROUND_STROKE, strokeReach } from '../piece';
import type {
  DisplayItem,
  Fill,
  GroupItem,
  ItemEffect,
  ItemMask,
  ItemPaint,
  ItemStroke,
  PictureItem,
  ShapeItem,
  Source,
  UnderEffect,
} from '../scene';
import { asOne, blurred, clipped, composition, faded, lookOf, seenBy } from './look';
import type { Cover, Look, PaintLook, ShapeLook, Tone } from './look';
import { isPlainGradient, recoloured, solid, toneOf, washedWith } from './tones';

/** Display items as looks. What a Lottie file has no means for is told by name, and stands there as near as can be. */

/** Natural size of a picture, pixels; null if it is not to be had. */
export type PictureSize = (hash: string) => { readonly width: number; readonly height: number } | null;

/** Covers any frame, in pixels. Far larger ones lose their edges in players. */
const FAR = 20_000;
/** A share of a glow that is not seen. */
const LEAST = 0.002;
const opaque = (colour: Colour): Colour => colour.slice(0, 7);
const rotation = (turn: number): Matrix => [Math.cos(turn), Math.sin(turn), -Math.sin(turn), Math.cos(turn), 0, 0];
const WHITE = solid('#FFFFFF');

const alpha = (looks: readonly Look[], inverted = false): Cover => ({ looks, channel: 'alpha', inverted });
const boxPath = ([l, t, r, b]: Box): string => `M${l} ${t}L${r} ${t}L${r} ${b}L${l} ${b}Z`;

const shape = (
  layerId: string,
  drawn: Pick<ShapeLook, 'path' | 'pathKey' | 'matrix'>,
  paints: readonly PaintLook[],
): Look => lookOf(layerId, { type: 'shape', ...drawn, paints });

const box = (layerId: string, within: Box, matrix: Matrix, tone: Tone): Look =>
  shape(layerId, { path: boxPath(within), pathKey: `b${within.join()}`, matrix }, [
    { use: 'fill', tone, rule: 'nonzero' },
  ]);
const everywhere = (layerId: string, tone: Tone): Look => box(layerId, [-FAR, -FAR, FAR, FAR], IDENTITY, tone);

export class LookReader {
  readonly left = new Set<string>();
  constructor(private readonly sizeOf: PictureSize) {}

  /** The looks of items, the first at the bottom. */
  readonly looks = (items: readonly DisplayItem[]): Look[] => items.flatMap((item) => this.item(item));

  private item(item: DisplayItem): readonly Look[] {
    switch (item.kind) {
      case 'shape':
      case 'picture':
        return this.leaf(item);
      case 'group':
        return this.group(item);
      case 'smear': {
        this.left.add('motion blur');
        const middle = item.samples[Math.floor(item.samples.length / 2)];
        return middle ? this.item({ ...middle, blend: item.blend }) : [];
      }
      case 'trail':
        return this.looks(item.copies);
    }
  }

  private leaf(item: ShapeItem | PictureItem): readonly Look[] {
    const { layerId, opacity, blend, clip, wipe } = item;
    let drawn = item.kind === 'shape' ? this.shape(item) : this.picture(item);
    if (drawn.length === 0) return [];
    if (clip || wipe || item.blur || opacity < 1 || blend !== 'normal') drawn = [asOne(layerId, drawn)];
    return drawn.map((look) => {
      const kept = clipped(look, clip ? boxCorners(clip.matrix, clip.box) : null);
      const soft = wipe ? seenBy(kept, this.wipe(item, wipe)) : kept;
      return faded(blurred(soft, item.blur ?? 0), opacity, blend);
    });
  }

  /** Seen up to one end of a way, not at all from the other on. */
  private wipe({ layerId, matrix, box: own }: DisplayItem, { from, to }: NonNullable<DisplayItem['wipe']>): Cover {
    const stops = [
      [0, '#FFFFFF'],
      [1, '#FFFFFF00'],
    ] as const;
    const edge: Tone = { type: 'linear', from, to, stops, focus: { share: 0, degrees: 0 } };
    // Long words reach far in their own coordinates.
    const far = Math.max(FAR, 2 * Math.max(...own.map(Math.abs)));
    const path = { path: boxPath([-far, -far, far, far]), pathKey: `far${far}`, matrix };
    return alpha([shape(layerId, path, [{ use: 'fill', tone: edge, rule: 'nonzero' }])]);
  }

  private picture({ layerId, source, matrix, box: within, cornerRadius }: PictureItem): readonly Look[] {
    const placed = this.placed(layerId, source, matrix, within);
    if (!placed || cornerRadius <= 0) return placed ? [placed] : [];
    const [l, t, r, b] = within;
    // Pictures stand about their middle, as the outline does.
    const path = roundedRectanglePath(r - l, b - t, cornerRadius);
    const corners = { path, pathKey: `q${r - l},${b - t},${cornerRadius}`, matrix };
    return [seenBy(placed, alpha([shape(layerId, corners, [{ use: 'fill', tone: WHITE, rule: 'nonzero' }])]))];
  }

  private placed(layerId: string, source: Source, matrix: Matrix, [l, t, r, b]: Box): Look | null {
    const { hash } = source;
    if (this.sizeOfSource(source))
      return lookOf(layerId, { type: 'picture', hash, matrix: multiply(matrix, [r - l, 0, 0, b - t, l, t]) });
    return null;
  }

  /** Null, and told, if it is not to be had. The format has no footage. */
  private sizeOfSource({ hash, frame }: Source): ReturnType<PictureSize> {
    const size = frame === null ? this.sizeOf(hash) : null;
    if (!size) this.left.add(frame === null ? 'pictures' : 'footage');
    return size;
  }

  private shape(item: ShapeItem): readonly Look[] {
    const { stroke } = item;
    const whole: ShapeItem = { ...item };
    delete (whole as { dash?: unknown }).dash;
    const outline = (colour: Colour, width: number): ItemPaint => ({
      use: 'stroke',
      stroke: { colour, width, behind: true },
    });
    const paints: readonly (readonly [ShapeItem, ItemPaint])[] = [
      ...(item.outlines ?? []).map(({ colour, width }) => [whole, outline(colour, width)] as const),
      ...(stroke?.behind ? [[item, { use: 'stroke', stroke }] as const] : []),
      ...(item.fill ? [[item, { use: 'fill', fill: item.fill }] as const] : []),
      ...(stroke && !stroke.behind ? [[item, { use: 'stroke', stroke }] as const] : []),
      ...(item.more ?? []).map((paint) => [item, paint] as const),
    ];
    const drawn = paints.flatMap(([of, paint]) =>
      paint.use === 'fill' ? this.fill(of, paint.fill) : this.stroke(of, paint.stroke),
    );
    return merged(drawn);
  }

  private plainFill({ layerId, path, pathKey, matrix, rule }: ShapeItem, tone: Tone): Look {
    return shape(layerId, { path, pathKey, matrix }, [{ use: 'fill', tone, rule: rule ?? 'nonzero' }]);
  }

  private fill(item: ShapeItem, fill: Fill): readonly Look[] {
    if (fill.type === 'picture') return this.pictureFill(item, fill);
    return this.toned(item, fill, 0, (tone) => this.plainFill(item, tone));
  }

  /** Something in a tone; where a gradient is out of shape, it is painted by itself and seen through the thing. */
  private toned(
    { layerId, matrix, path, pathKey, box: own }: ShapeItem,
    fill: Exclude<Fill, { type: 'picture' }>,
    reach: number,
    draw: (tone: Tone) => Look,
  ): readonly Look[] {
    const [l, t, r, b] = pathBounds(pathKey, path) ?? own;
    const within: Box = [l - reach, t - reach, r + reach, b + reach];
    if (fill.type !== 'gradient' || isPlainGradient(fill)) return [draw(toneOf(fill, within, this.left))];
    const inside = transformBox(invert(fill.matrix), within);
    const tone = toneOf({ ...fill, matrix: IDENTITY }, inside, this.left);
    const ground = box(layerId, inside, multiply(matrix, fill.matrix), tone);
    return [seenBy(ground, alpha([draw(WHITE)]))];
  }

  private pictureFill(
    item: ShapeItem,
    { source, box: within, fallback }: Extract<Fill, { type: 'picture' }>,
  ): readonly Look[] {
    const size = this.sizeOfSource(source);
    if (!size) return [this.plainFill(item, solid(fallback))];
    const [l, t, r, b] = within;
    const cover = Math.max((r - l) / size.width, (b - t) / size.height);
    const [w, h] = [(size.width * cover) / 2, (size.height * cover) / 2];
    const [x, y] = [(l + r) / 2, (t + b) / 2];
    const placed = this.placed(item.layerId, source, item.matrix, [x - w, y - h, x + w, y + h]);
    return placed ? [seenBy(placed, alpha([this.plainFill(item, WHITE)]))] : [];
  }

  private stroke(item: ShapeItem, stroke: ItemStroke): readonly Look[] {
    const { layerId, path, pathKey, matrix, dash } = item;
    const own = stroke.style;
    const position = own?.position ?? 'centre';
    const pattern = dash ? [dash.on, dash.off] : (own?.dash ?? []);
    const style = {
      cap: own?.cap ?? (dash ? 'butt' : 'round'),
      join: own?.join ?? 'round',
      miterLimit: own?.miterLimit ?? 10,
      dash: pattern.some((length) => length > 0) ? pattern : [],
      dashShift: dash?.shift ?? own?.dashShift ?? 0,
    } as const;
    const width = stroke.behind || position !== 'centre' ? stroke.width * 2 : stroke.width;
    const reach = strokeReach(width, { ...ROUND_STROKE, ...own, position: 'outside' });
    const asked: Fill = stroke.fill ?? { type: 'solid', colour: stroke.colour };
    const fill = asked.type === 'picture' ? ({ type: 'solid', colour: asked.fallback } as const) : asked;
    const drawn = this.toned(item, fill, reach, (tone) =>
      shape(layerId, { path, pathKey, matrix }, [{ use: 'stroke', tone, width, style }]),
    );
    if (position === 'centre') return drawn;
    const cover = alpha([this.plainFill(item, WHITE)], position === 'outside');
    return drawn.map((look) => seenBy(look, cover));
  }

  /** A mask alone, in white on nothing. */
  private maskAlone(layerId: string, mask: ItemMask): Look {
    const { path, pathKey, matrix, rule, expansion, feather, inverted } = mask;
    const drawn = (paints: readonly PaintLook[]): Look => shape(layerId, { path, pathKey, matrix }, paints);
    const fill: PaintLook = { use: 'fill', tone: WHITE, rule };
    const style = { cap: 'butt', join: 'round', miterLimit: 10, dash: [] as number[], dashShift: 0 } as const;
    const edge: PaintLook = { use: 'stroke', tone: WHITE, width: 2 * Math.abs(expansion), style };
    let alone = drawn(expansion > 0 ? [fill, edge] : [fill]);
    if (expansion < 0) alone = seenBy(alone, alpha([drawn([edge])], true));
    alone = blurred(alone, feather);
    return inverted ? seenBy(everywhere(layerId, WHITE), alpha([alone], true)) : alone;
  }

  /** What masks leave to be seen, in white: each takes from or adds to what those before it leave. */
  private masks(layerId: string, masks: readonly ItemMask[]): readonly Look[] {
    let sum: readonly Look[] = masks[0]?.mode === 'add' ? [] : [everywhere(layerId, WHITE)];
    for (const mask of masks) {
      const alone = faded(this.maskAlone(layerId, mask), mask.opacity, 'normal');
      if (mask.mode === 'add') sum = [...sum, alone];
      else if (sum.length > 0) sum = [seenBy(asOne(layerId, sum), alpha([alone], mask.mode === 'subtract'))];
    }
    return sum;
  }

  /** Something in one colour with the shape of looks, moved and softened. */
  private silhouette(
    layerId: string,
    looks: readonly Look[],
    colour: Colour,
    [x, y]: readonly [number, number],
    blur: number,
  ): Look {
    const flat = looks.map((look) => recoloured(look, washedWith(colour, 1)));
    const tinted = flat.every((look) => look !== null)
      ? flat
      : [seenBy(everywhere(layerId, solid(opaque(colour))), alpha(looks))];
    return faded(blurred(composition(layerId, tinted, [1, 0, 0, 1, x, y]), blur), alphaOf(colour), 'normal');
  }

  /** A colour laid over looks. @param share - of it. */
  private washed(layerId: string, looks: readonly Look[], colour: Colour, share: number): readonly Look[] {
    if (share <= 0) return looks;
    const changed = looks.map((look) => recoloured(look, washedWith(colour, share)));
    if (changed.every((look) => look !== null)) return changed;
    const over = seenBy(everywhere(layerId, solid(opaque(colour))), alpha(looks));
    return [...looks, faded(over, share, 'normal')];
  }

  private under(layerId: string, effect: UnderEffect, looks: readonly Look[]): readonly Look[] {
    if (effect.type === 'shadow')
      return [this.silhouette(layerId, looks, effect.colour, [effect.x, effect.y], effect.blur)];
    this.left.add('long shadows and solid letters');
    return [];
  }

  private effect(
    { layerId, matrix, box: own }: GroupItem,
    effect: ItemEffect,
    looks: readonly Look[],
  ): readonly Look[] {
    const { kind, values } = effect;
    const number = (id: string): number => Number(values[id]) || 0;
    const change = colourAfter(effect);
    if (change) {
      const changed = looks.map((look) => recoloured(look, change));
      if (changed.every((look) => look !== null)) return changed;
    }
    switch (kind) {
      case 'blur':
        return [blurred(asOne(layerId, looks), number('radius'))];
      case 'shadow': {
        const colour = String(values.colour);
        return [this.silhouette(layerId, looks, colour, [number('x'), number('y')], number('blur')), ...looks];
      }
      case 'glow':
        return this.glow(layerId, number('radius'), number('strength') / 100, looks);
      case 'shake': {
        const [l, t, r, b] = transformBox(matrix, own);
        const turn = (number('turned') * Math.PI) / 180;
        const [x, y] = [(l + r) / 2, (t + b) / 2];
        const about = multiply([1, 0, 0, 1, x + number('dx'), y + number('dy')], rotation(turn));
        return [composition(layerId, looks, multiply(about, [1, 0, 0, 1, -x, -y]))];
      }
      // Layers of the past, and whether it is there, are seen to before an item comes here.
      case 'echo':
      case 'strobe':
        return looks;
      default:
        this.left.add(`the effect ${EFFECT_KINDS[kind].label}`);
        return looks;
    }
  }

  /** Soft copies under what glows, as many as its strength asks for, each adding its light to those before. */
  private glow(layerId: string, radius: number, strength: number, looks: readonly Look[]): readonly Look[] {
    const soft: Look[] = [];
    for (let rest = strength; rest > LEAST; rest -= 1) {
      const copy = blurred(composition(layerId, looks), radius);
      soft.push(faded(copy, Math.min(1, rest), soft.length === 0 ? 'normal' : 'add'));
    }
    return [composition(layerId, [...soft, ...looks])];
  }

  private group(item: GroupItem): readonly Look[] {
    const { layerId, wash, wipe, masks, matte, effects, clip, opacity, blend } = item;
    let looks: readonly Look[] = this.looks(item.children);
    if (looks.length === 0) return [];
    if (wash) looks = this.washed(layerId, looks, wash.colour, wash.share * alphaOf(wash.colour));
    const seen = (cover: Cover): void => void (looks = [seenBy(asOne(layerId, looks), cover)]);
    if (wipe) seen(this.wipe(item, wipe));
    if (masks) seen(alpha(this.masks(layerId, masks)));
    if (matte) {
      const cover: Cover = { looks: this.looks(matte.items), channel: matte.channel, inverted: matte.inverted };
      // Not every player has the inverse of brightness; all have that of opacity.
      if (cover.channel === 'luminance' && cover.inverted)
        seen(alpha([seenBy(everywhere(layerId, WHITE), { ...cover, inverted: false })], true));
      else seen(cover);
    }
    looks = [...item.under.flatMap((effect) => this.under(layerId, effect, looks)), ...looks];
    for (const effect of effects ?? []) looks = this.effect(item, effect, looks);
    // What blends in a group of layers blends with the group, not with what is below it.
    const isOne = item.holds === 'layers' && looks.some((look) => look.blend !== 'normal');
    if (!isOne && !item.blur && !clip && opacity >= 1 && blend === 'normal') return looks;
    const one = clipped(
      blurred(isOne ? composition(layerId, looks) : asOne(layerId, looks), item.blur ?? 0),
      clip ? boxCorners(clip.matrix, clip.box) : null,
    );
    return [faded(one, opacity, blend)];
  }
}

/** Neighbours that are paints of one path become one shape. */
function merged(looks: readonly Look[]): readonly Look[] {
  const out: Look[] = [];
  for (const look of looks) {
    const last = out.at(-1);
    const isPlain = (l: Look): boolean => l.cover === null && l.what.type === 'shape';
    if (
      last &&
      isPlain(last) &&
      isPlain(look) &&
      last.what.type === 'shape' &&
      look.what.type === 'shape' &&
      last.what.pathKey === look.what.pathKey &&
      last.what.matrix === look.what.matrix
    )
      out[out.length - 1] = { ...last, what: { ...last.what, paints: [...last.what.paints, ...look.what.paints] } };
    else out.push(look);
  }
  return out;
}
