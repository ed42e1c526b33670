import { multiply } from '../geometry';
import type { Matrix } from '../geometry';
import { alphaOf } from '../colour';
import type { Colour } from '../colour';
import type { ItemEffect } from '../scene';
import type { DrawContext } from './draw-target';
import { PIXEL_EFFECTS } from './pixel-effects';
import type { PixelEffect } from './pixel-effects';
import { BLUR_REACH, opaque } from './tools';
import type { Flat, Tools } from './tools';
import { drawUnder, silhouette } from './under-effects';

/** An effect on its way: what it is done to, and where that stands. */
interface Work {
  readonly tools: Tools;
  readonly flat: Flat;
  /** Pixels of the surface a pixel of the format makes. */
  readonly scale: number;
  /** The left top corner of the flat in pixels of the scaled frame. */
  readonly corner: readonly [number, number];
  /** The middle of the layer and half its sides, in pixels of the flat. */
  readonly middle: readonly [number, number];
  readonly half: readonly [number, number];
  readonly number: (id: string) => number;
  readonly colour: (id: string) => Colour;
  readonly seed: number;
}

type Use = (done: Flat) => void;
type Draw = (work: Work, use: Use) => void;

const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/** A surface of the flat's size, drawn on, then used in its place. */
function redrawn({ tools, flat }: Work, draw: (context: DrawContext, own: Flat) => void, use: Use): void {
  tools.withScratch(flat.width, flat.height, (surface) => {
    draw(surface.context, { ...flat, x: 0, y: 0 });
    use({ ...flat, surface });
  });
}

/** The flat through a matrix, added to what is there by a share. */
function drawThrough(context: DrawContext, flat: Flat, matrix: Matrix, alpha: number): void {
  context.save();
  context.setTransform(...matrix);
  context.globalAlpha = alpha;
  context.globalCompositeOperation = 'lighter';
  const { surface, width, height } = flat;
  context.drawImage(surface.image as never, 0, 0, width, height, 0, 0, width, height); // opaque to the painter
  context.restore();
}

/**
 * The mean of 2ⁿ copies along a movement, in n passes: each is the mean of what there is and itself moved by half as
 * many steps. `step` gives the matrix of a share of the way; shares add up.
 */
function averaged(work: Work, passes: number, step: (share: number) => Matrix, use: Use): void {
  const pass = (flat: Flat, k: number): void => {
    if (k === passes) return use({ ...work.flat, surface: flat.surface });
    const share = 1 / 2 ** (k + 1);
    redrawn(
      { ...work, flat },
      (context, own) => {
        // Half forwards and half backwards keeps the middle where it is.
        drawThrough(context, own, step(share / 2), 0.5);
        drawThrough(context, own, step(-share / 2), 0.5);
      },
      (next) => pass(next, k + 1),
    );
  };
  pass(work.flat, 0);
}

/** Ways longer than this, pixels of the surface, are averaged at half the size: what is lost is blurred away. */
const LONG_WAY = 24;

/** Like {@link averaged}, at half the size where the way is long. `step` works on pixels of the work it is given. */
function smeared(work: Work, way: number, step: (work: Work, share: number) => Matrix, use: Use): void {
  const { tools, flat } = work;
  if (way <= LONG_WAY) return averaged(work, passesFor(way), (share) => step(work, share), use);
  const [w, h] = [flat.width, flat.height];
  tools.withScratch(Math.ceil(w / 2), Math.ceil(h / 2), (surface) => {
    surface.context.drawImage(flat.surface.image as never, 0, 0, w, h, 0, 0, w / 2, h / 2); // opaque to the painter
    const half: Work = {
      ...work,
      flat: { ...flat, surface, width: Math.ceil(w / 2), height: Math.ceil(h / 2) },
      scale: work.scale / 2,
      middle: [work.middle[0] / 2, work.middle[1] / 2],
    };
    averaged(
      half,
      passesFor(way / 2),
      (share) => step(half, share),
      (done) =>
        redrawn(work, (context) => context.drawImage(done.surface.image as never, 0, 0, w / 2, h / 2, 0, 0, w, h), use),
    );
  });
}

const passesFor = (pixels: number): number => Math.min(7, Math.max(1, Math.ceil(Math.log2(Math.max(2, pixels / 1.5)))));

const aboutMiddle = ([x, y]: readonly [number, number], matrix: Matrix): Matrix =>
  multiply(multiply([1, 0, 0, 1, x, y], matrix), [1, 0, 0, 1, -x, -y]);

const turned = (angle: number): Matrix => [Math.cos(angle), Math.sin(angle), -Math.sin(angle), Math.cos(angle), 0, 0];

const byPixels =
  (change: PixelEffect): Draw =>
  (work, use) => {
    const { flat, scale, corner, middle, number, colour, seed } = work;
    redrawn(
      work,
      (context) => {
        const pixels = flat.surface.context.getImageData(0, 0, flat.width, flat.height);
        change(pixels, { x: corner[0], y: corner[1], scale, middle }, { number, colour, seed });
        context.putImageData(pixels as never, 0, 0); // the host's own
      },
      use,
    );
  };

/** Rings of copies that grow a shape: far enough apart to be quick, near enough to leave no gap. */
const RINGS = [1, 0.66, 0.33];

/** How each effect is drawn. */
const EFFECTS: { readonly [K in ItemEffect['kind']]: Draw } = {
  blur: (work, use) =>
    redrawn(work, (context, own) => work.tools.lay(context, own, { blur: work.number('radius') * work.scale }), use),
  directional(work, use) {
    const turn = radians(work.number('angle'));
    smeared(
      work,
      work.number('length') * work.scale,
      ({ number, scale }, share) => {
        const by = share * number('length') * scale;
        return [1, 0, 0, 1, by * Math.cos(turn), by * Math.sin(turn)];
      },
      use,
    );
  },
  zoom(work, use) {
    const most = 1 + work.number('amount') / 100;
    smeared(
      work,
      Math.hypot(...work.half) * (most - 1),
      ({ middle }, share) => aboutMiddle(middle, [most ** share, 0, 0, most ** share, 0, 0]),
      use,
    );
  },
  spin(work, use) {
    const angle = radians(work.number('angle'));
    smeared(
      work,
      Math.hypot(...work.half) * Math.abs(angle),
      ({ middle }, share) => aboutMiddle(middle, turned(share * angle)),
      use,
    );
  },
  glow: (work, use) =>
    redrawn(
      work,
      (context, own) => {
        for (let rest = work.number('strength') / 100; rest > 0.002; rest -= 1)
          work.tools.lay(context, own, {
            blur: work.number('radius') * work.scale,
            operation: 'lighter',
            alpha: Math.min(1, rest),
          });
        work.tools.lay(context, own);
      },
      use,
    ),
  shadow: (work, use) =>
    redrawn(
      work,
      (context, own) => {
        const { number, colour } = work;
        const shadow = { type: 'shadow', colour: colour('colour'), x: number('x'), y: number('y') } as const;
        drawUnder(work.tools, context, { ...shadow, blur: number('blur') }, own, work.scale);
        work.tools.lay(context, own);
      },
      use,
    ),
  inner: (work, use) =>
    redrawn(
      work,
      (context, own) => {
        const { tools, scale, number } = work;
        const colour = work.colour('colour');
        tools.lay(context, own);
        // All around in the shadow's colour, but where the shape, moved and softened, keeps it off.
        tools.withScratch(own.width, own.height, (surface) => {
          surface.context.fillStyle = opaque(colour);
          surface.context.fillRect(0, 0, own.width, own.height);
          const [x, y] = [number('x') * scale, number('y') * scale];
          tools.lay(surface.context, own, { x, y, blur: number('blur') * scale, operation: 'destination-out' });
          tools.lay(context, { ...own, surface }, { operation: 'source-atop', alpha: alphaOf(colour) });
        });
      },
      use,
    ),
  long: (work, use) =>
    redrawn(
      work,
      (context, own) => {
        const [length, turn] = [work.number('length'), radians(work.number('angle'))];
        const [x, y] = [length * Math.cos(turn), length * Math.sin(turn)];
        drawUnder(work.tools, context, { type: 'long', colour: work.colour('colour'), x, y }, own, work.scale);
        work.tools.lay(context, own);
      },
      use,
    ),
  outline: (work, use) =>
    redrawn(
      work,
      (context, own) => {
        const width = work.number('width') * work.scale;
        const colour = work.colour('colour');
        silhouette(work.tools, own, colour, (tinted) =>
          work.tools.withScratch(own.width, own.height, (surface) => {
            for (const ring of RINGS) {
              const count = Math.min(48, Math.max(8, Math.ceil((2 * Math.PI * width * ring) / 1.5)));
              for (let i = 0; i < count; i++) {
                const turn = (2 * Math.PI * i) / count;
                const [x, y] = [width * ring * Math.cos(turn), width * ring * Math.sin(turn)];
                work.tools.lay(surface.context, tinted, { x, y });
              }
            }
            work.tools.lay(context, { ...own, surface }, { alpha: alphaOf(colour) });
          }),
        );
        work.tools.lay(context, own);
      },
      use,
    ),
  feather: (work, use) =>
    redrawn(
      work,
      (context, own) => {
        const { tools } = work;
        tools.lay(context, own);
        tools.withScratch(own.width, own.height, (surface) => {
          surface.context.fillStyle = '#000000';
          surface.context.fillRect(0, 0, own.width, own.height);
          tools.lay(surface.context, own, { operation: 'destination-out' });
          tools.lay(
            context,
            { ...own, surface },
            { blur: (work.number('radius') / 2) * work.scale, operation: 'destination-out' },
          );
        });
      },
      use,
    ),
  vignette: (work, use) =>
    redrawn(
      work,
      (context, own) => {
        work.tools.lay(context, own);
        const colour = opaque(work.colour('colour'));
        const [[x, y], [w, h]] = [work.middle, work.half];
        context.save();
        context.setTransform(w, 0, 0, h, x, y);
        context.globalCompositeOperation = 'source-atop';
        context.globalAlpha = work.number('amount') / 100;
        // A circle through the corners of the unit square.
        const gradient = context.createRadialGradient(0, 0, 0, 0, 0, Math.SQRT2);
        gradient.addColorStop(Math.min(0.99, work.number('size') / 100), `${colour}00`);
        gradient.addColorStop(1, colour);
        context.fillStyle = gradient;
        context.setTransform(w, 0, 0, h, x, y);
        context.fillRect(-x / w, -y / h, own.width / w, own.height / h);
        context.restore();
      },
      use,
    ),
  // Drawn as layers of the past before it comes here.
  echo: (work, use) => use(work.flat),
  strobe: (work, use) => (work.number('shown') > 0 ? use(work.flat) : redrawn(work, () => undefined, use)),
  shake(work, use) {
    const matrix = multiply(
      [1, 0, 0, 1, work.number('dx') * work.scale, work.number('dy') * work.scale],
      aboutMiddle(work.middle, turned(radians(work.number('turned')))),
    );
    redrawn(work, (context, own) => drawThrough(context, own, matrix, 1), use);
  },
  grain: byPixels(PIXEL_EFFECTS.grain),
  pixelate: byPixels(PIXEL_EFFECTS.pixelate),
  posterise: byPixels(PIXEL_EFFECTS.posterise),
  halftone: byPixels(PIXEL_EFFECTS.halftone),
  tear: byPixels(PIXEL_EFFECTS.tear),
  wave: byPixels(PIXEL_EFFECTS.wave),
  ripple: byPixels(PIXEL_EFFECTS.ripple),
  chromatic: byPixels(PIXEL_EFFECTS.chromatic),
  tint: byPixels(PIXEL_EFFECTS.tint),
  duotone: byPixels(PIXEL_EFFECTS.duotone),
  grey: byPixels(PIXEL_EFFECTS.grey),
  invert: byPixels(PIXEL_EFFECTS.invert),
  levels: byPixels(PIXEL_EFFECTS.levels),
};

const numberOf =
  (effect: ItemEffect) =>
  (id: string): number => {
    const value = effect.values[id];
    return typeof value === 'number' ? value : 0;
  };

/** Does effects one after another to a flat, then uses what has become of it. */
export function withEffects(
  tools: Tools,
  flat: Flat,
  effects: readonly ItemEffect[],
  where: Pick<Work, 'scale' | 'corner' | 'middle' | 'half'>,
  use: Use,
): void {
  const [first, ...rest] = effects;
  if (!first) return use(flat);
  const colour = (id: string): Colour => {
    const value = first.values[id];
    return typeof value === 'string' ? value : '#000000';
  };
  const work: Work = { tools, flat, ...where, number: numberOf(first), colour, seed: first.seed };
  EFFECTS[first.kind](work, (done) => withEffects(tools, done, rest, where, use));
}

/** How far in pixels of the format effects reach beyond a layer of these sides. */
export function effectsReach(effects: readonly ItemEffect[], [width, height]: readonly [number, number]): number {
  const diagonal = Math.hypot(width, height);
  return effects.reduce((sum, effect) => {
    const number = numberOf(effect);
    switch (effect.kind) {
      case 'blur':
      case 'glow':
        return sum + BLUR_REACH * number('radius');
      case 'feather':
        // What lies around is taken off softly, so that it has to be there.
        return sum + (BLUR_REACH * number('radius')) / 2;
      case 'directional':
        return sum + number('length') / 2;
      case 'zoom':
        return sum + (diagonal / 4) * (number('amount') / 100);
      case 'spin':
        return sum + (diagonal - Math.min(width, height)) / 2;
      case 'shadow':
      case 'inner':
        // What lies around throws none into it, so that it has to be there.
        return sum + Math.max(Math.abs(number('x')), Math.abs(number('y'))) + BLUR_REACH * number('blur');
      case 'long':
        return sum + number('length');
      case 'outline':
        return sum + number('width') + 1;
      case 'halftone':
      case 'pixelate':
        return sum + number('size');
      case 'tear':
      case 'wave':
      case 'ripple':
        return sum + number('amount');
      case 'chromatic':
        return sum + number('distance');
      case 'shake':
        return (
          sum +
          Math.max(Math.abs(number('dx')), Math.abs(number('dy'))) +
          (diagonal / 2) * radians(Math.abs(number('turned')))
        );
      default:
        return sum;
    }
  }, 0);
}
