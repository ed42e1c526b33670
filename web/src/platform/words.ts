/** Wording of platform. */
export const WORDS = {
  aPieceWithinIsMissing: (status: number) => `A nested piece is missing (${status}).`,
  aPictureIsMissing: (status: number) => `A picture is missing on the server (${status}). Import it again.`,
  theFontIsMissing: (value: string) => `The font “${value}” is missing on the server. Import it again.`,
  theServerDoesNot: 'The server’s answer can’t be read. Your edits are stored in this browser.',
  theServerDoesNotAnswer:
    'The server isn’t responding. Your edits are stored in this browser and saved when it is back.',
  theServerDoesNotAnswerThe: 'The server isn’t responding. The file was not imported; try again when it is back.',
  theFileIsToo: (name: string) => `The file ${name} is too large. Choose a smaller one.`,
  theWorkerCouldNot: 'the worker couldn’t be started',
  thisPieceWasWritten: (detail: string) =>
    `This piece was saved by a newer version of Estrella (${detail}). Reload the page.`,
  thisPieceCannotBe: (detail: string) => `This piece can’t be shown (${detail}).`,
} as const;
