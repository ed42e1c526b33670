/** Wording of media. */
export const WORDS = {
  thisIsAPieceWithin: 'This file belongs to a nested piece. To use it as a layer, add the piece itself in Picture.',
  cannotBeRead: 'The file can’t be read.',
  isInChooseIt: (value: string, value2: string) =>
    `Imported ${value} ${value2}. Choose it in the font list under Yours.`,
  tempoAsLastTime: (bpm: string) => `Two tempi fit this song. It is set to ${bpm} BPM, like your last piece.`,
  listeningForBeats: 'Detecting beats',
} as const;
