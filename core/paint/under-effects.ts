import { alphaOf, mixColours } from '../colour';
import type { Colour } from '../colour';
import type { UnderEffect } from '../scene';
import type { DrawContext } from './draw-target';
import { opaque } from './tools';
import type { Flat, Tools } from './tools';

/** Shadows, glows and the sides of solid letters: what lies under a group and has its shape. */

/** Colours between the near and the far end of letters that stand out. */
const SIDE_BANDS = 10;

/** The shape of a flat in one colour, for as long as `use` runs. */
export function silhouette(tools: Tools, flat: Flat, colour: Colour, use: (tinted: Flat) => void): void {
  const { width, height } = flat;
  tools.withScratch(width, height, (surface) => {
    const own = surface.context;
    own.drawImage(flat.surface.image as never, 0, 0, width, height, 0, 0, width, height);
    own.globalCompositeOperation = 'source-in';
    own.fillStyle = opaque(colour);
    own.fillRect(0, 0, width, height);
    own.globalCompositeOperation = 'source-over';
    use({ ...flat, surface });
  });
}

/** A shape drawn out along a vector, on surfaces of the same size. */
function drawOut(tools: Tools, shape: Flat, dx: number, dy: number, use: (drawn: Flat) => void): void {
  // Doubling: the shape and itself moved by one step, both moved by two, by four … cover the way in log2 passes.
  const passes = Math.max(1, Math.ceil(Math.log2(Math.max(2, Math.hypot(dx, dy)))));
  const step = [dx / 2 ** passes, dy / 2 ** passes] as const;
  const grow = (from: Flat, pass: number): void => {
    if (pass === passes) return use(from);
    tools.withScratch(from.width, from.height, (surface) => {
      tools.lay(surface.context, from, { x: 0, y: 0 });
      tools.lay(surface.context, from, { x: step[0] * 2 ** pass, y: step[1] * 2 ** pass });
      grow({ ...from, surface }, pass + 1);
    });
  };
  grow(shape, 0);
}

/** The sides of letters, from the far end to the near one in bands of one colour each. */
function drawSides(
  tools: Tools,
  context: DrawContext,
  effect: Extract<UnderEffect, { type: 'long' }>,
  far: Colour,
  flat: Flat,
  scale: number,
): void {
  const [dx, dy] = [effect.x * scale, effect.y * scale];
  const bands = Math.max(1, Math.min(SIDE_BANDS, Math.ceil(Math.hypot(dx, dy) / 2)));
  drawOut(tools, flat, dx / bands, dy / bands, (drawn) => {
    for (let band = bands - 1; band >= 0; band--) {
      const colour = mixColours(effect.colour, far, bands === 1 ? 0 : band / (bands - 1));
      const [x, y] = [flat.x + (dx / bands) * band, flat.y + (dy / bands) * band];
      silhouette(tools, drawn, colour, (tinted) => tools.lay(context, tinted, { x, y, alpha: alphaOf(colour) }));
    }
  });
}

/** @param flat - the group that it lies under. @param scale - pixels of the surface a pixel of the format makes. */
export function drawUnder(tools: Tools, context: DrawContext, effect: UnderEffect, flat: Flat, scale: number): void {
  silhouette(tools, flat, effect.colour, (tinted) => {
    const alpha = alphaOf(effect.colour);
    if (effect.type === 'shadow') {
      const [x, y] = [flat.x + effect.x * scale, flat.y + effect.y * scale];
      return tools.lay(context, tinted, { x, y, alpha, blur: effect.blur * scale });
    }
    if (effect.far && effect.far !== effect.colour) return drawSides(tools, context, effect, effect.far, flat, scale);
    drawOut(tools, tinted, effect.x * scale, effect.y * scale, (drawn) => tools.lay(context, drawn, { alpha }));
  });
}
