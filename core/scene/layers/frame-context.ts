import type { Matrix } from '../../geometry';
import type { Seconds } from '../../time';
import type { DisplayItem, StillItem } from '../list/display-list';
import type { LayoutText } from '../text/text-at';
import type { Outer } from './outer';
import type { PreparedLayer, PreparedScene } from './prepare';

/** What the items of a frame are made from. One object a frame: its identity tells frames apart. */
export interface FrameContext {
  readonly scene: PreparedScene;
  readonly layoutText: LayoutText;
  /** A layer that is left out: its words are being typed on the canvas. */
  readonly skipLayerId: string | null;
  /** Without gestures: where things come to lie. */
  readonly isAtRest: boolean;
  /** The group in whose own pixels everything is wanted, as if it stood in the frame; null for the frame. */
  readonly within: PreparedLayer | null;
  /** Where the frame itself lies: a piece within another is drawn in the other's pixels; null for where it is. */
  readonly around: Outer | null;
  /** A copy of a layer that is drawn elsewhere: what its place is moved by, in the pixels of its group. */
  readonly moved: { readonly layer: PreparedLayer; readonly matrix: Matrix } | null;
  /** The innermost group around that has a time of its own, and when and how it itself is seen. */
  readonly timed: { readonly group: PreparedLayer; readonly seconds: Seconds; readonly context: FrameContext } | null;
  /** How layers are drawn: handed on, so that groups can draw what is in them. */
  readonly draw: {
    /** With what is smeared and what follows; null if the layer is not there. */
    readonly layer: (prepared: PreparedLayer, seconds: Seconds, context: FrameContext) => DisplayItem | null;
    /** As one thing at one time. */
    readonly still: (prepared: PreparedLayer, seconds: Seconds, context: FrameContext) => StillItem | null;
  };
}
