import type { LayoutText } from '../text/text-at';
import type { FrameContext } from './frame-context';
import { stillItem } from './layer-items';
import { layerItem } from './over-time';
import type { PreparedScene } from './prepare';

const DRAW: FrameContext['draw'] = { layer: layerItem, still: stillItem };

/** What a frame begins with: the whole scene, moved and copied by nothing. */
export const wholeFrame = (scene: PreparedScene, layoutText: LayoutText): FrameContext => ({
  scene,
  layoutText,
  skipLayerId: null,
  isAtRest: false,
  within: null,
  around: null,
  moved: null,
  timed: null,
  draw: DRAW,
});
