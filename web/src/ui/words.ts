/** Wording of ui. */
export const WORDS = {
  ctrl: 'Ctrl',
  esc: 'Esc',
  del: 'Del',
  pageUp: 'Page up',
  pageDown: 'Page down',
  picker: (label: string) => `${label}, picker`,
  undo: 'Undo',
  closeTheNotice: 'Close the notice',
  divide: (label: string) => `Divide: ${label}`,
} as const;
