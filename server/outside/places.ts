/** The places of the stand-in, each with rules as such places have them. */
export interface OutsidePlace {
  readonly label: string;
  readonly mediaTypes: readonly string[];
  readonly mostBytes: number;
  readonly mostSeconds: number;
  /** Width over height, from and to. */
  readonly shape: readonly [number, number];
  /** Posts of an account a day. */
  readonly mostPosts: number;
}

export const OUTSIDE_PLACES: Readonly<Record<string, OutsidePlace>> = {
  'mole-wall': {
    label: 'Mole Wall',
    mediaTypes: ['video/mp4', 'video/webm'],
    mostBytes: 200_000_000,
    mostSeconds: 600,
    shape: [1.2, 2.4],
    mostPosts: 40,
  },
  'kite-wire': {
    label: 'Kite Wire',
    mediaTypes: ['video/mp4', 'video/quicktime'],
    mostBytes: 100_000_000,
    mostSeconds: 90,
    shape: [0.5, 1.01],
    mostPosts: 20,
  },
  'ferry-board': {
    label: 'Ferry Board',
    mediaTypes: ['video/mp4', 'image/gif', 'image/png', 'image/jpeg', 'image/webp', 'text/html'],
    mostBytes: 20_000_000,
    mostSeconds: 60,
    shape: [0.4, 2.5],
    mostPosts: 10,
  },
};

/** A place's rules in words. */
export const rulesOf = (place: OutsidePlace): string[] => [
  `takes ${place.mediaTypes.join(', ')}`,
  `up to ${place.mostBytes / 1e6} MB and ${place.mostSeconds} s`,
  `width over height from ${place.shape[0]} to ${place.shape[1]}`,
  `${place.mostPosts} posts a day`,
];

export interface OfferedFile {
  readonly mediaType: string;
  readonly bytes: number;
  readonly width: number | null;
  readonly height: number | null;
  readonly seconds: number | null;
}

/** What a place has against a file. */
export function againstFile(place: OutsidePlace, file: OfferedFile, postsToday: number): string[] {
  const shape = file.width && file.height ? file.width / file.height : null;
  return [
    place.mediaTypes.includes(file.mediaType) ? '' : `${place.label} takes no ${file.mediaType}`,
    file.bytes <= place.mostBytes ? '' : `it is larger than ${place.mostBytes / 1e6} MB`,
    (file.seconds ?? 0) <= place.mostSeconds ? '' : `it is longer than ${place.mostSeconds} s`,
    shape === null || (shape >= place.shape[0] && shape <= place.shape[1])
      ? ''
      : `its shape does not fit ${place.label}`,
    postsToday < place.mostPosts ? '' : `${place.mostPosts} posts were made today`,
  ].filter((reason) => reason !== '');
}
