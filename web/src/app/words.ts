/** Wording of app. */
export const WORDS = {
  thereIsNoSuch: 'There is no such page',
  thisPageFailed: 'This page failed',
  theAddressMayHave: 'The address may have been mistyped, or the piece deleted.',
  yourPiecesAreSafe: 'Your pieces are safe. Load the page again, or go back to all pieces.',
  toAllPieces: 'To all pieces',
  opening: 'Opening …',
} as const;
