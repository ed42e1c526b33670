/** Wording of media. */
export const WORDS = {
  theSongCannotBe: 'The song cannot be read.',
  isInChooseIt: (value: string, value2: string) => `${value} ${value2} is in; choose it as a face under Yours`,
  listeningForBeats: 'Listening for beats',
} as const;
