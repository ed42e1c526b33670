/** Wording of the form for a new piece. */
export const WORDS = {
  newPiece: 'New piece',
  untitled: 'Untitled piece',
  name: 'Name',
  seenIn: 'Where it will be seen',
  frames: { wide: 'Wide', tall: 'Tall', square: 'Square', portrait: 'Portrait', custom: 'Custom' },
  ownSize: 'your own',
  leads: 'leads the others',
  width: 'Width in pixels',
  height: 'Height in pixels',
  pixels: 'pixels',
  rate: 'Frames a second',
  cancel: 'Cancel',
  create: 'Create',
  badSides: (least: number, most: number) => `Each side is a whole number from ${least} to ${most} pixels.`,
  failed: 'The piece could not be made.',
} as const;
