import { alphaOf, mixColours } from '../colour';
import type { Colour } from '../colour';
import { roundedRectanglePath, scaleOf, transformBox } from '../geometry';
import type { Box, Matrix } from '../geometry';
import { BLEND_MODES, EFFECT_KINDS } from '../piece';
import type { BlendMode } from '../piece';
import type {
  DisplayItem,
  DisplayList,
  Fill,
  GroupItem,
  ItemMask,
  ItemStroke,
  Matte,
  PictureItem,
  ShapeItem,
  Source,
  UnderEffect,
} from '../scene';
import { attributes, boxOf, lineOf, n } from './attributes';

/**
 * A frame as an SVG file that looks the same: shapes with all their paints, groups, clips, masks, mattes, blurs, shadows and
 * blend modes. What SVG has no means for is told by name.
 */

export interface WrittenSvg {
  readonly svg: string;
  /** What is not in the file, by name, each once. */
  readonly left: readonly string[];
}

export interface WriteOptions {
  /** A picture or a frame of footage as a `data:` address; null leaves it out. */
  readonly picture: (source: Source) => string | null;
  /** Only this layer, on nothing. */
  readonly layer?: DisplayItem;
}

const matrixText = (m: Matrix): string => `matrix(${m.map(n).join(' ')})`;
/** Beyond every frame, in pixels of the format. */
const FAR = 20_000;
const WIDE = `x="${-FAR}" y="${-FAR}" width="${2 * FAR}" height="${2 * FAR}"`;
const WHITE = `<rect ${WIDE} fill="#fff"/>`;
const GRADIENT_STOPS = 6;

const escaped = (text: string): string =>
  text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`).replace(/[^\t\n\r\u0020-\uD7FF\uE000-\uFFFD]/g, '');

const opaque = (colour: Colour): string => colour.slice(0, 7);
const paintText = (name: 'fill' | 'stroke' | 'stop' | 'flood', colour: Colour): string => {
  const attribute = name === 'stop' || name === 'flood' ? `${name}-color` : name;
  const alpha = alphaOf(colour);
  return `${attribute}="${opaque(colour)}"${alpha < 1 ? ` ${name}-opacity="${n(alpha)}"` : ''}`;
};

/** CSS has the canvas's names but for one. */
const blendText = (blend: BlendMode): string => {
  const { operation } = BLEND_MODES[blend];
  return blend === 'normal' ? '' : ` style="mix-blend-mode:${operation === 'lighter' ? 'plus-lighter' : operation}"`;
};

class Writer {
  readonly defs: string[] = [];
  readonly left = new Set<string>();
  private count = 0;
  constructor(private readonly picture: WriteOptions['picture']) {}

  private define(write: (id: string) => string): string {
    const id = `e${++this.count}`;
    this.defs.push(write(id));
    return id;
  }

  private readonly clip = (inner: string): string => this.define((id) => `<clipPath id="${id}">${inner}</clipPath>`);
  private readonly mask = (inner: string, type = 'luminance'): string =>
    this.define((id) => `<mask id="${id}" maskUnits="userSpaceOnUse" ${WIDE} mask-type="${type}">${inner}</mask>`);
  private readonly filter = (inner: string): string =>
    this.define(
      (id) =>
        `<filter id="${id}" filterUnits="userSpaceOnUse" ${WIDE} color-interpolation-filters="sRGB">${inner}</filter>`,
    );

  /** What a fill is, as the value of an attribute. */
  private fillText(name: 'fill' | 'stroke', fill: Fill): string {
    if (fill.type === 'solid') return paintText(name, fill.colour);
    if (fill.type === 'picture') return paintText(name, fill.fallback);
    const stop = (at: number, colour: Colour): string => `<stop offset="${n(at)}" ${paintText('stop', colour)}/>`;
    if (fill.type === 'gradient') {
      const { gradient, matrix } = fill;
      const stops = gradient.stops.map(({ at, colour }) => stop(at, colour)).join('');
      if (gradient.shape === 'conic') {
        this.left.add('conic gradients');
        return paintText(name, gradient.stops[0]!.colour); // a gradient has stops
      }
      const units = `gradientUnits="userSpaceOnUse" spreadMethod="${gradient.spread}" gradientTransform="${matrixText(matrix)}"`;
      const [fx, fy] = gradient.focus;
      const id = this.define((own) =>
        gradient.shape === 'linear'
          ? `<linearGradient id="${own}" ${units} x1="0" y1="0" x2="1" y2="0">${stops}</linearGradient>`
          : `<radialGradient id="${own}" ${units} cx="0" cy="0" r="1" fx="${n(fx)}" fy="${n(fy)}">${stops}</radialGradient>`,
      );
      return `${name}="url(#${id})"`;
    }
    // Two colours mix in Oklab; enough stops show it in a file that mixes in sRGB.
    const stops = Array.from({ length: GRADIENT_STOPS + 1 }, (_, i) =>
      stop(i / GRADIENT_STOPS, mixColours(fill.start, fill.end, i / GRADIENT_STOPS)),
    ).join('');
    const id = this.define((own) => {
      const units = { id: own, gradientUnits: 'userSpaceOnUse' };
      if (fill.type === 'linear')
        return `<linearGradient${attributes({ ...units, ...lineOf(fill.from, fill.to) })}>${stops}</linearGradient>`;
      const circle = { cx: fill.centre[0], cy: fill.centre[1], r: Math.max(0.001, fill.radius) };
      return `<radialGradient${attributes({ ...units, ...circle })}>${stops}</radialGradient>`;
    });
    return `${name}="url(#${id})"`;
  }

  private pictureFill(item: ShapeItem, source: Source, box: Box): string {
    const address = this.picture(source);
    if (address === null) this.left.add('pictures');
    const id = this.clip(`<path d="${item.path}"${item.rule === 'evenodd' ? ' clip-rule="evenodd"' : ''}/>`);
    if (address === null) return '';
    const place = { 'clip-path': `url(#${id})`, href: escaped(address), ...boxOf(box) };
    return `<image${attributes({ ...place, preserveAspectRatio: 'xMidYMid slice' })}/>`;
  }

  private fillPath(item: ShapeItem, fill: Fill): string {
    if (fill.type === 'picture') return this.pictureFill(item, fill.source, fill.box);
    const rule = item.rule === 'evenodd' ? ' fill-rule="evenodd"' : '';
    return `<path d="${item.path}" ${this.fillText('fill', fill)}${rule}/>`;
  }

  private strokePath(item: ShapeItem, stroke: ItemStroke, dashes: boolean): string {
    const { style } = stroke;
    const dash = dashes ? item.dash : undefined;
    const position = style?.position ?? 'centre';
    const width = stroke.behind || position !== 'centre' ? stroke.width * 2 : stroke.width;
    const pattern = dash ? [dash.on, dash.off] : (style?.dash ?? []);
    const shift = dash?.shift ?? style?.dashShift ?? 0;
    const rule = item.rule === 'evenodd';
    let around = '';
    if (position === 'inside')
      around = ` clip-path="url(#${this.clip(`<path d="${item.path}"${rule ? ' clip-rule="evenodd"' : ''}/>`)})"`;
    if (position === 'outside')
      around = ` mask="url(#${this.mask(`${WHITE}<path d="${item.path}"${rule ? ' fill-rule="evenodd"' : ''}/>`)})"`;
    return (
      `<path d="${item.path}" fill="none" ${this.fillText('stroke', stroke.fill ?? { type: 'solid', colour: stroke.colour })}` +
      ` stroke-width="${n(width)}" stroke-linejoin="${style?.join ?? 'round'}" stroke-miterlimit="${n(style?.miterLimit ?? 10)}"` +
      ` stroke-linecap="${style?.cap ?? (dash ? 'butt' : 'round')}"` +
      (pattern.some((length) => length > 0)
        ? ` stroke-dasharray="${pattern.map(n).join(' ')}" stroke-dashoffset="${n(shift)}"`
        : '') +
      `${around}/>`
    );
  }

  private shape(item: ShapeItem): string {
    const { stroke } = item;
    const parts = [
      ...(item.outlines ?? []).map(({ colour, width }) =>
        this.strokePath(item, { colour, width, behind: true }, false),
      ),
      stroke?.behind ? this.strokePath(item, stroke, true) : '',
      item.fill ? this.fillPath(item, item.fill) : '',
      stroke && !stroke.behind ? this.strokePath(item, stroke, true) : '',
      ...(item.more ?? []).map((paint) =>
        paint.use === 'fill' ? this.fillPath(item, paint.fill) : this.strokePath(item, paint.stroke, true),
      ),
    ].filter((part) => part !== '');
    return parts.join('');
  }

  private pictureItem({ box: [l, t, r, b], source, cornerRadius }: PictureItem): string {
    const address = this.picture(source);
    if (address === null) {
      this.left.add('pictures');
      return '';
    }
    const clip =
      cornerRadius > 0
        ? ` clip-path="url(#${this.clip(`<path d="${roundedRectanglePath(r - l, b - t, cornerRadius)}"/>`)})"`
        : '';
    const place = { href: escaped(address), ...boxOf([l, t, r, b]), preserveAspectRatio: 'none' };
    return `<image${clip}${attributes(place)}/>`;
  }

  /** A soft edge as a mask in pixels of the format. */
  private wipe(item: DisplayItem, inner: string): string {
    if (!item.wipe) return inner;
    const { from, to } = item.wipe;
    const stops = '<stop offset="0" stop-color="#fff"/><stop offset="1" stop-color="#000"/>';
    const units = { gradientUnits: 'userSpaceOnUse', gradientTransform: matrixText(item.matrix) };
    const id = this.define(
      (own) => `<linearGradient${attributes({ id: own, ...units, ...lineOf(from, to) })}>${stops}</linearGradient>`,
    );
    return `<g mask="url(#${this.mask(`<rect ${WIDE} fill="url(#${id})"/>`)})">${inner}</g>`;
  }

  /** What counts for an item as a whole, around what is in it in pixels of the format. */
  private whole(item: DisplayItem, inner: string): string {
    if (inner === '') return '';
    let out = this.wipe(item, inner);
    if ((item.blur ?? 0) > 0)
      out = `<g filter="url(#${this.filter(`<feGaussianBlur stdDeviation="${n(item.blur ?? 0)}"/>`)})">${out}</g>`;
    if (item.clip) {
      const [l, t, r, b] = item.clip.box;
      const id = this.clip(
        `<path transform="${matrixText(item.clip.matrix)}" d="M${n(l)} ${n(t)}L${n(r)} ${n(t)}L${n(r)} ${n(b)}L${n(l)} ${n(b)}Z"/>`,
      );
      out = `<g clip-path="url(#${id})">${out}</g>`;
    }
    if (item.opacity >= 1 && item.blend === 'normal') return out;
    return `<g${item.opacity < 1 ? ` opacity="${n(item.opacity)}"` : ''}${blendText(item.blend)}>${out}</g>`;
  }

  private maskPath(mask: ItemMask, colour: string): string {
    const rule = mask.rule === 'evenodd' ? ' fill-rule="evenodd"' : '';
    const other = colour === '#fff' ? '#000' : '#fff';
    const edge = { stroke: mask.expansion > 0 ? colour : other, 'stroke-width': 2 * Math.abs(mask.expansion) };
    const grown = mask.expansion === 0 ? '' : attributes({ ...edge, 'stroke-linejoin': 'round' });
    let path = `<path transform="${matrixText(mask.matrix)}" d="${mask.path}" fill="${colour}"${rule}${grown}/>`;
    if (mask.feather > 0)
      path = `<g filter="url(#${this.filter(`<feGaussianBlur stdDeviation="${n(mask.feather)}"/>`)})">${path}</g>`;
    return path;
  }

  /** A mask alone, in white on nothing. */
  private maskAlone(mask: ItemMask): string {
    if (!mask.inverted) return this.maskPath(mask, '#fff');
    return `<g mask="url(#${this.mask(WHITE + this.maskPath(mask, '#000'))})">${WHITE}</g>`;
  }

  private masks(masks: readonly ItemMask[], inner: string): string {
    let sum = masks[0]?.mode === 'add' ? '' : WHITE;
    for (const mask of masks) {
      const alone = this.maskAlone(mask);
      const faded = mask.opacity < 1 ? `<g opacity="${n(mask.opacity)}">${alone}</g>` : alone;
      if (mask.mode === 'add') sum += faded;
      else {
        // What is taken away is painted black on white; what is met, white on black.
        const cover = mask.mode === 'intersect' ? faded : `${WHITE}<g filter="url(#${this.darkening()})">${faded}</g>`;
        sum = `<g mask="url(#${this.mask(cover)})">${sum}</g>`;
      }
    }
    return `<g mask="url(#${this.mask(sum, 'alpha')})">${inner}</g>`;
  }

  private readonly darkening = (): string =>
    this.filter('<feColorMatrix values="0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 1 0"/>');

  private matte({ items, channel, inverted }: Matte, inner: string): string {
    const cover = items.map((item) => this.item(item)).join('');
    if (!inverted) return `<g mask="url(#${this.mask(cover, channel)})">${inner}</g>`;
    const id = this.mask(cover, channel);
    // Seen where the cover is not: a white ground that the cover darkens.
    const ground = this.mask(`${WHITE}<g filter="url(#${this.darkening()})"><g mask="url(#${id})">${WHITE}</g></g>`);
    return `<g mask="url(#${ground})">${inner}</g>`;
  }

  private under(effect: UnderEffect, inner: string): string {
    if (effect.type === 'long') {
      this.left.add('long shadows and solid letters');
      return '';
    }
    const filter = this.filter(
      `<feGaussianBlur in="SourceAlpha" stdDeviation="${n(effect.blur)}"/><feOffset dx="${n(effect.x)}" dy="${n(effect.y)}" result="s"/>` +
        `<feFlood ${paintText('flood', effect.colour)}/><feComposite in2="s" operator="in"/>`,
    );
    return `<g filter="url(#${filter})">${inner}</g>`;
  }

  private group(item: GroupItem): string {
    let inner = item.children.map((child) => this.item(child)).join('');
    if (inner === '') return '';
    if (item.wash && item.wash.share > 0) {
      const flood = `<feFlood flood-color="${opaque(item.wash.colour)}" flood-opacity="${n(item.wash.share * alphaOf(item.wash.colour))}"/>`;
      inner = `<g filter="url(#${this.filter(`${flood}<feComposite in2="SourceGraphic" operator="atop"/>`)})">${inner}</g>`;
    }
    if (item.masks) inner = this.masks(item.masks, inner);
    if (item.matte) inner = this.matte(item.matte, inner);
    for (const effect of item.effects ?? [])
      if (effect.kind === 'blur')
        inner = `<g filter="url(#${this.filter(`<feGaussianBlur stdDeviation="${n(Number(effect.values.radius) || 0)}"/>`)})">${inner}</g>`;
      else this.left.add(`the effect ${EFFECT_KINDS[effect.kind].label}`);
    return item.under.map((effect) => this.under(effect, inner)).join('') + inner;
  }

  item(item: DisplayItem): string {
    switch (item.kind) {
      case 'shape':
      case 'picture': {
        const own = item.kind === 'shape' ? this.shape(item) : this.pictureItem(item);
        return own === '' ? '' : this.whole(item, `<g transform="${matrixText(item.matrix)}">${own}</g>`);
      }
      case 'group':
        return this.whole(item, this.group(item));
      case 'smear': {
        this.left.add('motion blur');
        const middle = item.samples[Math.floor(item.samples.length / 2)];
        return middle ? this.item({ ...middle, blend: item.blend }) : '';
      }
      case 'trail':
        return item.copies.map((copy) => this.item(copy)).join('');
    }
  }
}

/** The item of a layer by itself, in the box it takes. */
export function writeSvg(list: DisplayList, { picture, layer }: WriteOptions): WrittenSvg {
  const writer = new Writer(picture);
  const body = (layer ? [layer] : list.items).map((item) => writer.item(item)).join('');
  const { width, height } = list;
  const ground = layer ? '' : `<rect width="${width}" height="${height}" ${paintText('fill', list.background)}/>`;
  const [l, t, r, b] = layer ? layerBox(layer) : [0, 0, width, height];
  const defs = writer.defs.length > 0 ? `<defs>${writer.defs.join('')}</defs>` : '';
  const svg =
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n(r - l)}" height="${n(b - t)}" viewBox="${[l, t, r - l, b - t].map(n).join(' ')}">` +
    `${defs}${ground}${body}</svg>\n`;
  return { svg, left: [...writer.left] };
}

/** Room for strokes and shadows about a layer, of its longer side. */
const MARGIN = 0.1;

function layerBox(item: DisplayItem): Box {
  const [l, t, r, b] = transformBox(item.matrix, item.box);
  const by = Math.max(4 * scaleOf(item.matrix), MARGIN * Math.max(r - l, b - t));
  return [l - by, t - by, r + by, b + by];
}
