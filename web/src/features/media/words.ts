/** Wording of media. */
export const WORDS = {
  thisIsAPieceWithin:
    'This is what one piece keeps of another. To have it as a layer, put up the piece itself in Picture.',
  theSongCannotBe: 'The song cannot be read.',
  isInChooseIt: (value: string, value2: string) => `${value} ${value2} is in; choose it as a face under Yours`,
  listeningForBeats: 'Listening for beats',
} as const;
