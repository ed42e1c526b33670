import type { Colour } from '../colour';
import { evaluateTrack } from '../motion';
import type { Seconds } from '../time';
import type { FrameContext } from './layers/frame-context';
import { stillItem } from './layers/layer-items';
import { layerItem } from './layers/over-time';
import { stackOf } from './layers/stack';
import type { PreparedScene } from './layers/prepare';
import type { DisplayList } from './list/display-list';
import type { LayoutText } from './text/text-at';

const DRAW: FrameContext['draw'] = { layer: layerItem, still: stillItem };

/** The frame at a time: layers that stand in [start, end), bottom to top. Pure: same input, same list. */
export function sceneAt(
  scene: PreparedScene,
  seconds: Seconds,
  layoutText: LayoutText,
  skipLayerId: string | null = null,
): DisplayList {
  const context: FrameContext = {
    scene,
    layoutText,
    skipLayerId,
    isAtRest: false,
    within: null,
    around: null,
    moved: null,
    timed: null,
    draw: DRAW,
  };
  // A colour track; video has no alpha, so the ground is opaque.
  const background = (evaluateTrack(scene.background, seconds) as Colour).slice(0, 7);
  const { width, height } = scene.format;
  return { width, height, background, items: stackOf(scene.layers, seconds, context, background) };
}
