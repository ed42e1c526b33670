/** Wording of saving. */
export const WORDS = {
  edit: 'Edit',
  thisBrowserKeepsNo:
    'This browser can’t store a copy of your edits (storage full or blocked). They are still saved on the server.',
  theServerDoesNot: 'The server isn’t responding. Your edits are stored in this browser and saved when it is back.',
  thisBrowserHoldsEdits: 'This browser has unsaved edits, and the piece was changed elsewhere since.',
  thisVisit: 'this visit',
  thisPieceIsOpen: 'This piece is also open in another tab. Nothing is overwritten: the tab that saves second asks.',
  undoWent: 'Estrella was updated. All your edits are here; earlier steps can’t be undone any more.',
  myVersion: 'my version',
  fromAnEarlierVisit: 'from an earlier visit',
} as const;
