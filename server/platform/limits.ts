/** Longest song, seconds. */
export const MAX_SONG_SECONDS = 3600;
