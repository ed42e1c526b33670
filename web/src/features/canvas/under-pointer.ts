/** The layers that lay under the pointer when the menu was last asked for on the canvas, front to back. */
let under: readonly string[] = [];
export const setUnderPointer = (ids: readonly string[]): void => {
  under = ids;
};
export const underPointer = (): readonly string[] => under;
