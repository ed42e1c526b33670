/** Wording of media. */
export const WORDS = {
  thisIsAPieceWithin:
    'This is what one piece keeps of another. To have it as a layer, put up the piece itself in Picture.',
  cannotBeRead: 'The file cannot be read.',
  isInChooseIt: (value: string, value2: string) => `${value} ${value2} is in; choose it as a face under Yours`,
  tempoAsLastTime: (bpm: string) =>
    `Two tempi fit this song; it is counted at ${bpm} BPM, as you chose for the last such piece.`,
  listeningForBeats: 'Listening for beats',
} as const;
