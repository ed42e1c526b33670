/** Wording of store. */
export const WORDS = {
  thatWasLeftOut: (refused: string) => `Not applied: ${refused}.`,
  undone: (label: string) => `Undone: ${label}`,
  redone: (label: string) => `Redone: ${label}`,
} as const;
