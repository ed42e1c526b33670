/** Wording of app. */
export const WORDS = {
  thereIsNoSuch: 'Page not found',
  thisPageFailed: 'This page has crashed',
  theAddressMayHave: 'Check the address; the piece may have been deleted.',
  yourPiecesAreSafe: 'Your pieces are safe. Reload the page, or go back to all pieces.',
  toAllPieces: 'Go to all pieces',
  opening: 'Opening …',
} as const;
