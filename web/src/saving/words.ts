/** Wording of saving. */
export const WORDS = {
  edit: 'Edit',
  thisBrowserKeepsNo:
    'This browser keeps no copy of your edits (its storage is full, closed, or not there). They are still sent to the server.',
  theServerDoesNot: 'The server does not answer. Your edits are kept here and sent when it is back.',
  thisBrowserHoldsEdits: 'This browser holds edits that were not sent, and the piece was changed elsewhere since.',
  thisVisit: 'this visit',
  thisPieceIsOpen: 'This piece is open in another tab as well. Nothing is overwritten: whoever saves second is asked.',
  undoWent: 'Estrella was updated. Your edits are all here; steps from before can no longer be undone.',
  myVersion: 'my version',
  fromAnEarlierVisit: 'from an earlier visit',
} as const;
