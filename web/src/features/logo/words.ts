const list = (names: readonly string[]): string => names.join(', ');

/** Wording of logos. */
export const WORDS = {
  tooLarge: 'The file is larger than 4 MB. Nothing was changed.',
  cannotBeRead: (name: string, problem: string) => `“${name}” cannot be taken: ${problem} Nothing was changed.`,
  readerFailed: (name: string) => `“${name}” could not be read. Nothing was changed; try again.`,
  comesAsPicture: (name: string) => `${name} has more parts than layers can hold. Importing it as one picture …`,
  cameAsPicture: (name: string) => `${name} was imported as one picture: it has more parts than layers can hold.`,
  isIn: (name: string, layers: number) => `${name} is in: ${layers} ${layers === 1 ? 'layer' : 'layers'} in a group`,
  isReplaced: (name: string) => `${name} is in its place; what moved before moves on`,
  tooManyLayers: 'This file has more parts than layers can hold. Nothing was changed.',
  leftOut: (name: string) => `Not in ${name}`,
  whatIsLeftOut: (names: readonly string[]) => `These parts of the file are not had as layers: ${list(names)}.`,
  asPicture: 'Put it up as a picture instead',
  keep: 'Keep the layers',
  asPictureFailed: 'The file could not be made a picture; the layers stay.',
  logo: 'Logo',
  replace: 'Replace by an SVG file…',
  replaceFile: (name: string) => `SVG file to replace what is in ${name}`,
  drawOn: 'Draw its parts on',
  oneEach: 'one each',
  steps: { '0': 'all at once', '0.25': 'quarter beat', '0.5': 'half beat', '1': 'beat' },
  pace: 'How far apart the parts come',
  isDrawnOn: (parts: number) =>
    `${parts} ${parts === 1 ? 'part is' : 'parts are'} drawn on, the last one whole on its beat`,
  notSeenHere: (name: string) => `${name} shows nothing at the playhead`,
  isSaved: (name: string, left: readonly string[]) =>
    left.length === 0 ? `${name} is saved as SVG` : `${name} is saved as SVG, without ${list(left)}`,
  noParts: 'There is nothing to draw in it',
} as const;
