/** Wording of framing. */
export const WORDS = {
  framing: 'Framing',
  lies: 'Fit',
  fillTheFrame: 'Fill frame',
  findTheSubject: 'Find subject',
  looks: 'Finding the subject …',
  isFound: (name: string) => `Framed the subject of ${name}.`,
  hint: 'Looks for faces first, then for what stands out, and centres it as far as the picture allows.',
  cannotRead: (name: string) => `${name} can’t be read.`,
} as const;
