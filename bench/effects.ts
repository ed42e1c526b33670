import { createPainter } from '@core/paint';
import { EFFECT_KINDS, createLayer, createPiece, resolveTimes } from '@core/piece';
import type { Effect, EffectKind, Layer } from '@core/piece';
import { prepareScene, sceneAt } from '@core/scene';
import { FRAME_RATES, freeMoment } from '@core/time';
import { createSkiaHost, createSkiaSurface } from '../server/render/skia-host';

/** What effects cost: milliseconds a frame of 1920×1080, painted and read back as an export does. */

const FRAMES = 8;
const noLayout = (): never => {
  throw new Error('no words here');
};

/** A layer of these sides under an effect, or under none, painted anew each frame. */
function frameCost(kind: EffectKind | null, sides: readonly [number, number]): number {
  const base = createPiece(
    { name: 'bench', formats: [{ id: 'wide', name: 'Wide', width: 1920, height: 1080 }], frameRate: FRAME_RATES['30'] },
    () => 'b',
  );
  const plain = createLayer(
    'ellipse',
    {
      name: 'e',
      start: freeMoment(0),
      end: freeMoment(10),
      values: { dimensions: [...sides], fill: '#FF6F59', fillEnd: '#3B4A6B' },
      content: { gradient: 'linear' },
    },
    () => 'e',
  );
  const effect: Effect | null = kind && {
    id: kind,
    kind,
    isOn: true,
    seed: 1,
    parameters: kind === 'blur' ? { radius: { value: 12, keyframes: [] } } : {},
  };
  const layer: Layer = { ...plain, effects: effect ? [effect] : [] };
  const piece = { ...base, layers: [layer] };
  const scene = prepareScene(piece, resolveTimes(piece, null), 'wide');
  const surface = createSkiaSurface(1920, 1080);
  const painter = createPainter(createSkiaHost());
  const frame = (i: number) => {
    painter.forget();
    painter.paint(surface.context, sceneAt(scene, 1 + i / 30, noLayout));
    surface.canvas.data();
  };
  frame(0);
  const start = performance.now();
  for (let i = 1; i <= FRAMES; i++) frame(i);
  return (performance.now() - start) / FRAMES;
}

/** Prints a table: every effect on a layer that fills the frame and on one a hundredth as large. */
export function printEffectsCost(): void {
  console.log('| effect | whole frame, ms more | small layer, ms more |');
  console.log('|---|---|---|');
  for (const kind of Object.keys(EFFECT_KINDS) as EffectKind[]) {
    // Beside the same layer without, measured just now: the machine's own speed drifts.
    const more = (sides: readonly [number, number]) => frameCost(kind, sides) - frameCost(null, sides);
    console.log(`| ${kind} | ${more([1900, 1060]).toFixed(0)} | ${more([190, 106]).toFixed(1)} |`);
  }
}
