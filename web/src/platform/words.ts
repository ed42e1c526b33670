/** Wording of platform. */
export const WORDS = {
  aPieceWithinIsMissing: (status: number) => `A piece within this one is missing (${status}).`,
  aPictureIsMissing: (status: number) => `A picture is missing on the server (${status}). Bring it in again.`,
  theFontIsMissing: (value: string) => `The font “${value}” is missing on the server. Bring it in again.`,
  theServerDoesNot: 'The server does not answer properly. Your edits are kept here.',
  theServerDoesNotAnswer: 'The server does not answer. Your edits are kept here and sent when it is back.',
  theServerDoesNotAnswerThe: 'The server does not answer. The file was not brought in; try again when it is back.',
  theFileIsToo: (name: string) => `The file ${name} is too large. Nothing was changed; choose a smaller one.`,
  theWorkerCouldNot: 'the worker could not be started',
  thisPieceWasWritten: (detail: string) =>
    `This piece was written by a newer version of the program (${detail}). Load the page again.`,
  thisPieceCannotBe: (detail: string) => `This piece cannot be shown as it is (${detail}).`,
} as const;
