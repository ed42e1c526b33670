const list = (names: readonly string[]): string => names.join(', ');

/** Wording of logos. */
export const WORDS = {
  tooLarge: 'The file is larger than 4 MB. Choose a smaller one.',
  cannotBeRead: (name: string, problem: string) => `“${name}” can’t be imported: ${problem}`,
  readerFailed: (name: string) => `“${name}” couldn’t be read. Try again.`,
  comesAsPicture: (name: string) =>
    `${name} has more parts than a piece can have layers. Importing it as one picture …`,
  cameAsPicture: (name: string) => `Imported ${name} as one picture: it has more parts than a piece can have layers.`,
  isIn: (name: string, layers: number) => `Imported ${name}: ${layers} ${layers === 1 ? 'layer' : 'layers'} in a group`,
  isReplaced: (name: string) => `Replaced by ${name}; its animation is kept`,
  tooManyLayers: 'This file has more parts than a piece can have layers. Nothing was imported.',
  leftOut: (name: string) => `Missing in ${name}`,
  whatIsLeftOut: (names: readonly string[]) => `These parts of the file can’t become layers: ${list(names)}.`,
  asPicture: 'Import as one picture',
  keep: 'Use the layers',
  asPictureFailed: 'The file couldn’t be converted to a picture. The layers stay.',
  logo: 'Logo',
  replace: 'Replace SVG …',
  replaceFile: (name: string) => `SVG file to replace ${name}`,
  drawOn: 'Animate outlines',
  oneEach: 'one each',
  steps: { '0': 'All at once', '0.25': 'Quarter beat', '0.5': 'Half beat', '1': 'Beat' },
  pace: 'Interval between parts',
  isDrawnOn: (parts: number) =>
    `Animated ${parts} ${parts === 1 ? 'outline' : 'outlines'}, the last one complete on a beat`,
  notSeenHere: (name: string) => `${name} is not visible at the playhead`,
  isSaved: (name: string, left: readonly string[]) =>
    left.length === 0 ? `Saved ${name} as SVG` : `Saved ${name} as SVG without ${list(left)}`,
  noParts: 'It has no outlines to animate',
} as const;
