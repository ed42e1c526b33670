/** Wording of footage. */
export const WORDS = {
  footage: 'Footage',
  startsAt: 'Trim start',
  facts: (seconds: string, rate: string, width: number, height: number) =>
    `${seconds} s, ${rate} fps, ${width} × ${height}`,
  asLong: 'Extend to clip end',
  follow: 'Track subject',
  followHint: 'Adds focus keyframes, so the subject stays in every frame size.',
  following: 'Tracking the subject',
  cancel: 'Cancel',
  isFollowed: 'Added focus keyframes that follow the subject',
  allIsSeen: 'The whole clip fits every format, so there is nothing to reframe.',
  calledOff: 'Cancelled. The keyframes were not changed.',
  cannotRead: (name: string) => `${name} can’t be read.`,
  soundStays: (name: string) =>
    `Imported ${name} without its sound. To use the sound, import the clip under Music too.`,
  gettingReady: 'Preparing clip',
} as const;
