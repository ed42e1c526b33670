/** Wording of preview. */
export const WORDS = { frameAtSeconds: (at: number) => `Frame at ${at} seconds` } as const;
