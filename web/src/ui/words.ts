/** Wording of ui. */
export const WORDS = {
  ctrl: 'Ctrl',
  esc: 'Esc',
  del: 'Del',
  pageUp: 'Page up',
  pageDown: 'Page down',
  wears: (label: string) => `Roles that ${label} may wear`,
  picker: (label: string) => `${label}, picker`,
  fromTheScreen: 'Pick from the screen',
  undo: 'Undo',
  pickedUp: (place: number, of: number) => `Picked up from place ${place} of ${of}`,
  nowAt: (place: number, of: number) => `Now at place ${place} of ${of}`,
  putDown: (place: number, of: number) => `Put down at place ${place} of ${of}`,
  leftWhereItWas: 'Left where it was',
  closeTheNotice: 'Close the notice',
  divide: (label: string) => `Divide: ${label}`,
} as const;
