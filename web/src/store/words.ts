/** Wording of store. */
export const WORDS = {
  thatWasLeftOut: (refused: string) => `That was left out: ${refused}.`,
  undone: (label: string) => `Undone: ${label}`,
  redone: (label: string) => `Redone: ${label}`,
} as const;
