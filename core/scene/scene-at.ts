import type { Colour } from '../colour';
import { evaluateTrack } from '../motion';
import type { Seconds } from '../time';
import type { FrameContext } from './layers/frame-context';
import { stackOf } from './layers/stack';
import { wholeFrame } from './layers/whole-frame';
import type { PreparedScene } from './layers/prepare';
import type { DisplayList } from './list/display-list';
import type { LayoutText } from './text/text-at';

/** What stands behind the layers where the background is left out. */
export const NO_GROUND: Colour = '#00000000';

/**
 * The frame at a time: layers that stand in [start, end), bottom to top. Pure: same input, same list.
 * @param hasGround - false leaves the background out, so that the frame can lie over other pictures.
 */
export function sceneAt(
  scene: PreparedScene,
  seconds: Seconds,
  layoutText: LayoutText,
  skipLayerId: string | null = null,
  hasGround = true,
): DisplayList {
  const context: FrameContext = { ...wholeFrame(scene, layoutText), skipLayerId };
  // A colour track; where there is a ground, it is opaque.
  const ground = hasGround ? (evaluateTrack(scene.background, seconds) as Colour).slice(0, 7) : null;
  const { width, height } = scene.format;
  return { width, height, background: ground ?? NO_GROUND, items: stackOf(scene.layers, seconds, context, ground) };
}
