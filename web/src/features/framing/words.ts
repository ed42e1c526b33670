/** Wording of framing. */
export const WORDS = {
  framing: 'Framing',
  lies: 'Lies in its frame',
  fillTheFrame: 'Fill the whole frame',
  findTheSubject: 'Find the subject',
  hint: 'The focus is brought to the middle as far as there is picture around it.',
  cannotRead: (name: string) => `${name} cannot be read.`,
} as const;
