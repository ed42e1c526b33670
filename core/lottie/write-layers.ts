import type { BlendMode } from '../piece';
import type { Recorder } from './keyframes';
import type { LookRecord, Moving, PaintRecord, ShapeRecord, ToneRecord } from './recording';
import type { Thing, Things } from './tracks';
import {
  colourProperty,
  contourProperty,
  cornersProperty,
  numberProperty,
  partProperty,
  rounded,
  still,
  vectorProperty,
} from './write-properties';
import type { Json } from './write-properties';

/** Layers of a Lottie file (Lottie 1.0.1, Lottie Animation Community) from the things that were followed. */

/** A picture as it lies in the file. */
export interface FilePicture {
  /** A `data:` address. */
  readonly address: string;
  readonly width: number;
  readonly height: number;
}

type Layer = Record<string, Json>;
type FollowedThing = Thing<LookRecord>;
type Followed = Things<LookRecord>;

const BLEND: Readonly<Record<BlendMode, number>> = {
  normal: 0,
  multiply: 1,
  screen: 2,
  overlay: 3,
  darken: 4,
  lighten: 5,
  'colour-dodge': 6,
  'colour-burn': 7,
  'hard-light': 8,
  'soft-light': 9,
  difference: 10,
  exclusion: 11,
  hue: 12,
  saturation: 13,
  colour: 14,
  luminosity: 15,
  add: 16,
};
const CAP = { butt: 1, round: 2, square: 3 } as const;
const JOIN = { miter: 1, round: 2, bevel: 3 } as const;
const COVER = { alpha: [1, 2], luminance: [3, 4] } as const;
const GRADIENT = { linear: 1, radial: 2 } as const;
/** Players take the deviation of a Gaussian for so much of what they call blurriness. */
const BLURRINESS = 0.3;

export interface LayerOptions {
  readonly width: number;
  readonly height: number;
  readonly nameOf: (layerId: string) => string;
  readonly picture: (hash: string) => FilePicture | null;
}

function transform(
  { pivot, position, scale, rotation, skew }: Moving,
  move: number,
  size: readonly [number, number] = [1, 1],
): Layer {
  return {
    a: still(pivot.map(rounded)),
    p: vectorProperty(position, (value) => value + move),
    s: vectorProperty(scale, (value, i) => value / size[i]!),
    r: numberProperty(rotation),
    sk: numberProperty(skew),
    sa: still(0),
  };
}

function toneJson(record: ToneRecord): Layer {
  const opacity = { o: numberProperty(record.opacity) };
  const { tone } = record;
  if (tone.type === 'solid') return { c: colourProperty(record.colour), ...opacity };
  return {
    ...opacity,
    t: GRADIENT[tone.type],
    s: vectorProperty(record.from),
    e: vectorProperty(record.to),
    g: { p: tone.stops.length, k: colourProperty(record.colour) },
    ...(tone.type === 'radial' ? { h: numberProperty(record.share), a: numberProperty(record.direction) } : {}),
  };
}

function paintJson({ paint, tone, width, dash, dashShift }: PaintRecord): Layer {
  const isSolid = paint.tone.type === 'solid';
  if (paint.use === 'fill')
    return { ty: isSolid ? 'fl' : 'gf', r: paint.rule === 'evenodd' ? 2 : 1, ...toneJson(tone) };
  const { cap, join, miterLimit, dash: lengths } = paint.style;
  const dashes = lengths.map((_, i): Json => ({
    n: i % 2 === 0 ? 'd' : 'g',
    nm: `${i + 1}`,
    v: partProperty(dash, i),
  }));
  return {
    ty: isSolid ? 'st' : 'gs',
    lc: CAP[cap],
    lj: JOIN[join],
    ml: miterLimit,
    w: numberProperty(width),
    ...toneJson(tone),
    ...(dashes.length > 0 ? { d: [...dashes, { n: 'o', nm: 'offset', v: numberProperty(dashShift) }] } : {}),
  };
}

/** One group: contours, paints with the topmost first, and where it all is. */
const shapeJson = ({ contours, paints, moving }: ShapeRecord): Json => ({
  ty: 'gr',
  it: [
    ...contours.map(({ points, isClosed }) => ({ ty: 'sh', ks: contourProperty(points, isClosed) })),
    ...paints.map(paintJson).reverse(),
    { ty: 'tr', ...transform(moving, 0), o: still(100) },
  ],
});

const blurEffect = (blur: Recorder): Json => ({
  ty: 29,
  nm: 'Gaussian blur',
  en: 1,
  ef: [
    { ty: 0, nm: 'Blurriness', v: numberProperty(blur, 1 / BLURRINESS) },
    { ty: 7, nm: 'Dimensions', v: still(1) },
    { ty: 7, nm: 'Repeat edges', v: still(0) },
  ],
});

export class LayerWriter {
  readonly assets: Layer[] = [];
  private readonly pictures = new Map<string, string>();
  /** Compositions reach beyond the frame by so much on each side, so that what is blurred there is whole. */
  private readonly room: number;

  constructor(private readonly options: LayerOptions) {
    this.room = Math.ceil(Math.max(options.width, options.height) / 4);
  }

  /** @param offset - where the frame's left top corner lies. @returns layers, the topmost first. */
  layers(things: Followed, offset = 0): Layer[] {
    const layers = [...things.all].reverse().flatMap((thing) => this.withCover(thing, offset));
    return layers.map((layer, i) => ({ ...layer, ind: i + 1 }));
  }

  private withCover(thing: FollowedThing, offset: number): Layer[] {
    const own = this.layer(thing, offset);
    const { cover } = thing.look;
    if (!thing.cover || !cover) return [own];
    const [only, ...others] = thing.cover.all;
    const isOne = only && others.length === 0 && only.first === thing.first && only.end === thing.end && !only.cover;
    const layer = isOne
      ? this.layer(only, offset)
      : { ...this.base(thing, offset), ...this.inComposition(thing.cover, offset, null) };
    return [
      { ...layer, td: 1 },
      { ...own, tt: COVER[cover.channel][cover.inverted ? 1 : 0] },
    ];
  }

  private base({ first, end, look }: FollowedThing, offset: number): Layer {
    return {
      ddd: 0,
      nm: this.options.nameOf(look.layerId),
      ip: first,
      op: end,
      st: 0,
      sr: 1,
      ks: { o: still(100), a: still([0, 0]), p: still([offset, offset]), s: still([100, 100]), r: still(0) },
    };
  }

  /** Where a composition lies that is as large as the frame and the room about it. */
  private inComposition(things: Followed, offset: number, move: Moving | null): Layer {
    const { width, height } = this.options;
    const id = `c${this.assets.length + 1}`;
    const asset: Layer = { id };
    this.assets.push(asset);
    asset.layers = this.layers(things, this.room);
    const [w, h] = [width + 2 * this.room, height + 2 * this.room];
    const anchor = still([this.room, this.room]);
    const ks = move
      ? { ...transform(move, offset), a: anchor }
      : { a: anchor, p: still([offset, offset]), s: still([100, 100]), r: still(0) };
    return { ty: 0, refId: id, w, h, ks: { o: still(100), ...ks } };
  }

  private inPicture(hash: string): { layer: Layer; size: readonly [number, number] } {
    const picture = this.options.picture(hash);
    const size = [picture?.width ?? 1, picture?.height ?? 1] as const;
    let id = this.pictures.get(hash);
    if (id === undefined) {
      id = `p${this.pictures.size + 1}`;
      this.pictures.set(hash, id);
      this.assets.push({ id, w: size[0], h: size[1], u: '', p: picture?.address ?? '', e: 1 });
    }
    return { layer: { ty: 2, refId: id }, size };
  }

  private layer(thing: FollowedThing, offset: number): Layer {
    const { look, recorded } = thing;
    const layer = { ...this.base(thing, offset), bm: BLEND[look.blend] };
    const isInside = look.what.type === 'composition';
    if (recorded.shape) Object.assign(layer, { ty: 4, shapes: [shapeJson(recorded.shape)] });
    if (recorded.picture) {
      const { layer: own, size } = this.inPicture(recorded.picture.hash);
      Object.assign(layer, own, { ks: transform(recorded.picture.moving, offset, size) });
    }
    if (thing.children) Object.assign(layer, this.inComposition(thing.children, offset, recorded.move));
    const { ks } = layer as unknown as { ks: Layer };
    return {
      ...layer,
      ks: { ...ks, o: numberProperty(recorded.opacity) },
      ...(look.blur > 0 ? { ef: [blurEffect(recorded.blur)] } : {}),
      ...(look.clip
        ? {
            hasMask: true,
            masksProperties: [
              {
                mode: 'a',
                inv: false,
                o: still(100),
                x: still(0),
                pt: cornersProperty(recorded.clip, isInside ? this.room : 0),
              },
            ],
          }
        : {}),
    };
  }
}
