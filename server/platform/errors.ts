/** What can go wrong for a person, as codes; the status table below is kept complete by the compiler. */
export const ERROR_STATUS = {
  BAD_REQUEST: 400,
  NOT_FOUND: 404,
  CONFLICT: 409,
  FILE_EMPTY: 422,
  FILE_TOO_LARGE: 413,
  FILE_UNKNOWN: 415,
  AUDIO_UNREADABLE: 422,
  AUDIO_TOO_LONG: 422,
  PICTURE_UNREADABLE: 422,
  PICTURE_TOO_LARGE: 422,
  FONT_UNREADABLE: 422,
  NOT_A_PIECE_FILE: 422,
  PIECE_FILE_TOO_LARGE: 413,
  PIECE_VERSION_UNKNOWN: 422,
  PIECE_INVALID: 422,
  PIECE_MEDIA_MISSING: 422,
  MEDIA_MISSING: 422,
  NOTHING_TO_RENDER: 422,
  DISK_FULL: 507,
  DATABASE_AWAY: 503,
  ENCODER_FAILED: 500,
  WORKER_DIED: 500,
  INTERNAL: 500,
} as const;
export type ErrorCode = keyof typeof ERROR_STATUS;

/** What happened and what to do next. `{}` takes the detail. */
export const ERROR_WORDING = {
  BAD_REQUEST: 'The request was not understood: {}.',
  NOT_FOUND: 'This is not here any more.',
  CONFLICT: 'The piece was changed in another tab or window.',
  FILE_EMPTY: 'The file “{}” is empty. Nothing was changed; choose another file.',
  FILE_TOO_LARGE: 'The file is larger than {}. Nothing was changed; choose a smaller one.',
  FILE_UNKNOWN: '“{}” is neither a sound, a picture nor a font that can be read. Songs can be WAV, MP3, OGG, Opus, FLAC or M4A; pictures PNG, JPEG, WebP or GIF; fonts TTF, OTF, WOFF or WOFF2.',
  AUDIO_UNREADABLE: '“{}” has no sound that can be decoded. Nothing was changed; try saving it again as WAV or MP3.',
  AUDIO_TOO_LONG: '“{}” is longer than an hour. Cut out the part you need and bring that in.',
  PICTURE_UNREADABLE: 'The picture “{}” is damaged and cannot be decoded. Nothing was changed.',
  PICTURE_TOO_LARGE: '“{}” has more than 100 megapixels. Scale it down and bring it in again.',
  FONT_UNREADABLE: '“{}” has no letters that can be read: it is damaged, or a collection of several fonts. Nothing was changed; TTF, OTF, WOFF and WOFF2 can be brought in.',
  NOT_A_PIECE_FILE: 'This is no Estrella piece file, or it is damaged. Your pieces are unchanged.',
  PIECE_FILE_TOO_LARGE: 'The piece file is too large to open. Your pieces are unchanged.',
  PIECE_VERSION_UNKNOWN: 'The piece file was written by another version of Estrella (version {}). Update this one, then open the file again.',
  PIECE_INVALID: 'The piece file is damaged ({}). Your pieces are unchanged.',
  PIECE_MEDIA_MISSING: 'The piece file lacks “{}”. Export it again from where it was made; your pieces are unchanged.',
  MEDIA_MISSING: 'A file of this piece is missing on the server: {}. Bring it in again.',
  NOTHING_TO_RENDER: 'The piece has no length. Set its end after the first frame.',
  DISK_FULL: 'The disk is full. Nothing that was saved is lost; free some space and try again.',
  DATABASE_AWAY: 'The database does not answer. Your edits are kept here and sent when it is back.',
  ENCODER_FAILED: 'The video could not be encoded: {}. Your piece is unchanged; try again.',
  WORKER_DIED: 'Rendering was interrupted several times. Your piece is unchanged; try again.',
  INTERNAL: 'Something went wrong on the server. What was saved is safe; try again.',
} as const satisfies Record<ErrorCode, string>;

export class AppError extends Error {
  override readonly name = 'AppError';
  constructor(
    readonly code: ErrorCode,
    readonly detail = '',
    options?: { cause?: unknown },
  ) {
    super(ERROR_WORDING[code].replace('{}', () => detail || 'unknown'), options);
  }
}

/** The work was called off; never reported as a failure. */
export class Cancelled extends Error {
  override readonly name = 'Cancelled';
}

/** Wraps anything thrown in an AppError; system errors that people can do something about get their own code. */
export function asAppError(error: unknown): AppError {
  if (error instanceof AppError) return error;
  const code = typeof error === 'object' && error !== null && 'code' in error ? String(error.code) : '';
  if (code === 'ENOSPC') return new AppError('DISK_FULL', '', { cause: error });
  if (['ECONNREFUSED', 'ECONNRESET', '57P01', '57P03', '08006', '08001', '3D000'].includes(code) || (error instanceof Error && /Connection terminated|connect ECONNREFUSED|timeout exceeded when trying to connect/.test(error.message))) return new AppError('DATABASE_AWAY', '', { cause: error });
  return new AppError('INTERNAL', '', { cause: error });
}
