import type { Colour } from '../colour';
import { evaluateTrack } from '../motion';
import type { Seconds } from '../time';
import type { FrameContext } from './layers/frame-context';
import { stackOf } from './layers/stack';
import { wholeFrame } from './layers/whole-frame';
import type { PreparedScene } from './layers/prepare';
import type { DisplayList } from './list/display-list';
import type { LayoutText } from './text/text-at';

/** The frame at a time: layers that stand in [start, end), bottom to top. Pure: same input, same list. */
export function sceneAt(
  scene: PreparedScene,
  seconds: Seconds,
  layoutText: LayoutText,
  skipLayerId: string | null = null,
): DisplayList {
  const context: FrameContext = { ...wholeFrame(scene, layoutText), skipLayerId };
  // A colour track; video has no alpha, so the ground is opaque.
  const background = (evaluateTrack(scene.background, seconds) as Colour).slice(0, 7);
  const { width, height } = scene.format;
  return { width, height, background, items: stackOf(scene.layers, seconds, context, background) };
}
