/** Longest song, seconds. */
export const MAX_SONG_SECONDS = 3600;
/** Songs longer than this are listened to in a lane of their own. */
export const LONG_SONG_SECONDS = 600;
/** Largest JSON body of a request, and with it largest document. */
export const MAX_JSON_BYTES = 16_000_000;
/** Largest piece file, packed and unpacked. */
export const MAX_PIECE_FILE_BYTES = 1_500_000_000;
