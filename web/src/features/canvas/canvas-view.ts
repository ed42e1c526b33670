import { create } from 'zustand';

/** How the canvas is looked at; nothing of it is in the document. */
export interface CanvasView {
  /** Times the size at which the whole frame is seen. */
  readonly magnified: number;
  /** Where the frame's middle is moved from the middle of its room, pixels of the screen. */
  readonly pan: readonly [number, number];
  readonly showsRulers: boolean;
  readonly showsGrid: boolean;
  /** Steps of the grid, pixels of the format. */
  readonly gridStep: number;
  readonly showsSafeArea: boolean;
  /** The other frames of the piece beside this one. */
  readonly showsFormats: boolean;
}

export const MOST_MAGNIFIED = 32;
const LEAST_MAGNIFIED = 0.25;

export const useCanvasView = create<CanvasView>(() => ({
  magnified: 1,
  pan: [0, 0],
  showsRulers: false,
  showsGrid: false,
  gridStep: 60,
  showsSafeArea: false,
  showsFormats: false,
}));
export const setCanvasView = useCanvasView.setState;

/** The whole frame again. */
export const showWhole = (): void => setCanvasView({ magnified: 1, pan: [0, 0] });

/** @param about - what stays where it is on the screen: pixels from the middle of the canvas's room. */
export function magnify(factor: number, about: readonly [number, number] = [0, 0]): void {
  const { magnified, pan } = useCanvasView.getState();
  const next = Math.min(MOST_MAGNIFIED, Math.max(LEAST_MAGNIFIED, magnified * factor));
  const k = next / magnified;
  setCanvasView({ magnified: next, pan: [about[0] + (pan[0] - about[0]) * k, about[1] + (pan[1] - about[1]) * k] });
}

export function panBy(dx: number, dy: number): void {
  const { pan } = useCanvasView.getState();
  setCanvasView({ pan: [pan[0] + dx, pan[1] + dy] });
}
