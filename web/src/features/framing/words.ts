/** Wording of framing. */
export const WORDS = {
  framing: 'Framing',
  lies: 'Lies in its frame',
  fillTheFrame: 'Fill the whole frame',
  findTheSubject: 'Find the subject',
  looks: 'Looking for the subject …',
  isFound: (name: string) => `What matters in ${name} is in its frame.`,
  hint: 'Faces before all else, then what stands out. The focus is brought to the middle as far as there is picture around it.',
  cannotRead: (name: string) => `${name} cannot be read.`,
} as const;
