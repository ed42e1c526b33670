/** Wording of footage. */
export const WORDS = {
  footage: 'Footage',
  startsAt: 'Starts at',
  facts: (seconds: string, rate: string, width: number, height: number) =>
    `${seconds} s, ${rate} frames a second, ${width} × ${height}`,
  asLong: 'Show the rest of it',
  follow: 'Follow the subject',
  followHint: 'Keyframes move what is seen, so that what matters stays in every frame size.',
  following: 'Looking for the subject',
  cancel: 'Cancel',
  isFollowed: 'Keyframes of the focus follow the subject',
  allIsSeen: 'All of it is seen in every format: there is nothing to follow with.',
  calledOff: 'The keyframes are as they were',
  cannotRead: (name: string) => `${name} cannot be read.`,
  soundStays: (name: string) =>
    `${name} is in. Its sound is not heard; to have that, bring the film in under Music too.`,
  gettingReady: 'Getting the film ready',
} as const;
