/** What can go wrong for a person, as codes; the status table below is kept complete by the compiler. */
export const ERROR_STATUS = {
  BAD_REQUEST: 400,
  PASSWORD_NEEDED: 401,
  FOREIGN_PAGE: 403,
  NOT_FOUND: 404,
  ALREADY_THERE: 409,
  BODY_TOO_LARGE: 413,
  TOO_MANY_REQUESTS: 429,
  CONFLICT: 409,
  FILE_EMPTY: 422,
  FILE_TOO_LARGE: 413,
  FILE_UNKNOWN: 415,
  AUDIO_UNREADABLE: 422,
  AUDIO_TOO_LONG: 422,
  PICTURE_UNREADABLE: 422,
  FOOTAGE_UNREADABLE: 422,
  FOOTAGE_TOO_LONG: 422,
  FOOTAGE_TOO_LARGE: 422,
  FOOTAGE_TOO_MUCH: 422,
  PICTURE_TOO_LARGE: 422,
  FONT_UNREADABLE: 422,
  NOT_A_PIECE_FILE: 422,
  PIECE_FILE_TOO_LARGE: 413,
  PIECE_VERSION_UNKNOWN: 422,
  PIECE_INVALID: 422,
  STORED_UNREADABLE: 422,
  PIECE_MEDIA_MISSING: 422,
  MEDIA_MISSING: 422,
  NOTHING_TO_RENDER: 422,
  NO_CAPTIONS: 422,
  NO_RENDER: 422,
  SENT_BEFORE: 409,
  SEND_REFUSED: 422,
  SEND_FAILED: 502,
  SEND_LATER: 503,
  KEPT_FULL: 422,
  NO_TEMPLATE: 422,
  ROW_NOT_MADE: 422,
  ROW_HAS_MISTAKES: 422,
  TOO_HARD: 422,
  TOOK_TOO_LONG: 422,
  DISK_FULL: 507,
  DISK_LOW: 507,
  DATABASE_AWAY: 503,
  DATA_NEWER: 500,
  MEDIA_FAILED: 422,
  ENCODER_FAILED: 500,
  WORKER_DIED: 500,
  INTERNAL: 500,
} as const;
export type ErrorCode = keyof typeof ERROR_STATUS;

/** What happened and what to do next. `{}` takes the detail. */
export const ERROR_WORDING = {
  BAD_REQUEST: 'The request was not understood: {}.',
  PASSWORD_NEEDED: 'This Estrella asks for a password.',
  FOREIGN_PAGE: 'Another web page asked for this; only Estrella’s own pages may.',
  NOT_FOUND: 'This is not here any more.',
  ALREADY_THERE: 'This is there already: {}.',
  BODY_TOO_LARGE: 'That is more than is taken at once. Nothing was changed.',
  TOO_MANY_REQUESTS: 'That is a lot at once. Wait a moment and try again.',
  CONFLICT: 'This was changed in another tab or window.',
  FILE_EMPTY: 'The file “{}” is empty. Nothing was changed; choose another file.',
  FILE_TOO_LARGE: 'The file is larger than {}. Nothing was changed; choose a smaller one.',
  FILE_UNKNOWN:
    '“{}” is neither a sound, a picture, a film nor a font that can be read. Songs can be WAV, MP3, OGG, Opus, FLAC or M4A; pictures PNG, JPEG, WebP or GIF; films MP4, MOV, WebM or MKV; fonts TTF, OTF, WOFF or WOFF2.',
  AUDIO_UNREADABLE: '“{}” has no sound that can be decoded. Nothing was changed; try saving it again as WAV or MP3.',
  AUDIO_TOO_LONG: '“{}” is longer than an hour. Cut out the part you need and bring that in.',
  PICTURE_UNREADABLE: 'The picture “{}” is damaged and cannot be decoded. Nothing was changed.',
  FOOTAGE_UNREADABLE:
    '“{}” has no moving picture that can be decoded. Nothing was changed; try saving it again as MP4.',
  FOOTAGE_TOO_LONG: '“{}” is longer than ten minutes. Cut out the part you need and bring that in.',
  FOOTAGE_TOO_LARGE: 'The frames of “{}” have more than 36 megapixels. Scale it down and bring it in again.',
  FOOTAGE_TOO_MUCH: 'There is more footage in the piece than a page can carry. Render a shorter stretch, or a video.',
  PICTURE_TOO_LARGE: '“{}” has more than 100 megapixels. Scale it down and bring it in again.',
  FONT_UNREADABLE:
    '“{}” has no letters that can be read: it is damaged, or a collection of several fonts. Nothing was changed; TTF, OTF, WOFF and WOFF2 can be brought in.',
  NOT_A_PIECE_FILE: 'This is no Estrella piece file, or it is damaged. Your pieces are unchanged.',
  PIECE_FILE_TOO_LARGE: 'The piece file is too large to open. Your pieces are unchanged.',
  PIECE_VERSION_UNKNOWN:
    'The piece file was written by another version of Estrella (version {}). Update this one, then open the file again.',
  PIECE_INVALID: 'The piece file is damaged ({}). Your pieces are unchanged.',
  STORED_UNREADABLE:
    'The stored piece cannot be read ({}). It is kept as it is; an earlier revision can be brought back.',
  PIECE_MEDIA_MISSING: 'The piece file lacks “{}”. Export it again from where it was made; your pieces are unchanged.',
  MEDIA_MISSING: 'A file of this piece is missing on the server: {}. Bring it in again.',
  NOTHING_TO_RENDER: 'The piece has no length. Set its end after the first frame.',
  NO_CAPTIONS: 'There are no captions in what is rendered. Captions are made in the Words panel.',
  SENT_BEFORE: 'The same file was sent there before: {}. Nothing was sent now.',
  NO_RENDER: 'The file that was to be sent was not made, or is deleted. Render it again.',
  SEND_REFUSED: 'The destination does not take it: {}.',
  SEND_FAILED: 'It could not be sent: {}. The file is still here; send it again.',
  SEND_LATER: 'It is tried again by itself: {}.',
  KEPT_FULL: 'You keep {} already, which is as many as can be. Forget one first.',
  NO_TEMPLATE: '“{}” is a piece, but no template. Open it from the home, and keep it as a template there.',
  ROW_NOT_MADE: 'The row could not be made: {}',
  ROW_HAS_MISTAKES: 'The run-through found: {}',
  TOO_HARD: '{} takes too long to draw for a small picture; it can still be opened and rendered.',
  TOOK_TOO_LONG: '{} took too long and was stopped. Your piece is unchanged; try again, or with less.',
  DISK_FULL: 'The disk is full. Nothing that was saved is lost; free some space and try again.',
  DISK_LOW: 'There is little room on the disk: {}. Free some space and resume, or render all the same.',
  DATA_NEWER:
    'This data folder was used by a newer Estrella ({}). Start that version, or choose another folder with --data.',
  DATABASE_AWAY: 'The database does not answer. Your edits are kept here and sent when it is back.',
  MEDIA_FAILED: '“{}” could not be got ready. Bring it in again.',
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
    super(
      ERROR_WORDING[code].replace('{}', () => detail || 'unknown'),
      options,
    );
  }
}

/** The work was called off; never reported as a failure. */
export class Cancelled extends Error {
  override readonly name = 'Cancelled';
}

/** The lease on a job was lost: another worker has it now. Nothing may be written any more. */
export class LeaseLost extends Error {
  override readonly name = 'LeaseLost';
}

/** A person lets the job wait: what is done of it stays, and it is begun again later. */
export class Paused extends Error {
  override readonly name = 'Paused';
}

/** Something that may work later, outside of our hands. */
export class TryLater extends Error {
  override readonly name = 'TryLater';
  /** @param seconds - as long as is asked for; null for no wish. */
  constructor(
    readonly why: string,
    readonly seconds: number | null = null,
    options?: { cause?: unknown },
  ) {
    super(why, options);
  }
}

/** A long job lets others go first; what it has made stays. */
export class GivesTurn extends Error {
  override readonly name = 'GivesTurn';
}

/** A time limit was reached. */
export class TookTooLong extends Error {
  override readonly name = 'TookTooLong';
  constructor(readonly what: string) {
    super(`${what} took too long`);
  }
}

/** What PostgreSQL's error codes mean for a person (PostgreSQL 15, appendix A). */
const DATABASE_CODES: Readonly<Record<string, ErrorCode>> = {
  '53100': 'DISK_FULL', // disk_full
  '23505': 'ALREADY_THERE', // unique_violation
  '22P05': 'BAD_REQUEST', // untranslatable_character: U+0000 in jsonb
  '22P02': 'BAD_REQUEST', // invalid_text_representation
  '22021': 'BAD_REQUEST', // character_not_in_repertoire
  '22003': 'BAD_REQUEST', // numeric_value_out_of_range
  '53200': 'DATABASE_AWAY', // out_of_memory
  '53300': 'DATABASE_AWAY', // too_many_connections
  '57P01': 'DATABASE_AWAY', // admin_shutdown
  '57P02': 'DATABASE_AWAY', // crash_shutdown
  '57P03': 'DATABASE_AWAY', // cannot_connect_now
  '08006': 'DATABASE_AWAY', // connection_failure
  '08001': 'DATABASE_AWAY', // sqlclient_unable_to_establish_sqlconnection
  '08003': 'DATABASE_AWAY', // connection_does_not_exist
  '25P03': 'DATABASE_AWAY', // idle_in_transaction_session_timeout
  '58030': 'DATABASE_AWAY', // io_error
  '3D000': 'DATABASE_AWAY', // invalid_catalog_name: being created
  ECONNREFUSED: 'DATABASE_AWAY',
  ECONNRESET: 'DATABASE_AWAY',
  EPIPE: 'DATABASE_AWAY',
  ENOSPC: 'DISK_FULL',
  EDQUOT: 'DISK_FULL',
};

/** Whether there was no room on the disk. */
export const isDiskFull = (error: unknown): boolean => asAppError(error).code === 'DISK_FULL';

/** Wraps anything thrown in an AppError; system errors that people can do something about get their own code. */
export function asAppError(error: unknown): AppError {
  if (error instanceof AppError) return error;
  if (error instanceof TookTooLong) return new AppError('TOOK_TOO_LONG', error.what, { cause: error });
  // Errors of the HTTP framework say by status what they are.
  if (
    error instanceof Error &&
    'status' in error &&
    typeof error.status === 'number' &&
    error.status >= 400 &&
    error.status < 500
  ) {
    return new AppError(
      error.status === 404
        ? 'NOT_FOUND'
        : error.status === 413
          ? 'BODY_TOO_LARGE'
          : error.status === 403
            ? 'FOREIGN_PAGE'
            : error.status === 401
              ? 'PASSWORD_NEEDED'
              : 'BAD_REQUEST',
      'it is malformed',
      { cause: error },
    );
  }
  const code = typeof error === 'object' && error !== null && 'code' in error ? String(error.code) : '';
  const known = Object.hasOwn(DATABASE_CODES, code) ? DATABASE_CODES[code] : undefined;
  if (known)
    return new AppError(
      known,
      known === 'BAD_REQUEST' ? 'a value cannot be stored' : known === 'ALREADY_THERE' ? 'the id is taken' : '',
      { cause: error },
    );
  if (
    error instanceof Error &&
    (error.name === 'QueryRunnerAlreadyReleasedError' ||
      /Connection terminated|connect ECONNREFUSED|timeout exceeded when trying to connect|not queryable|Driver not Connected|[Qq]uery ?[Rr]unner already released|Connection ended unexpectedly/.test(
        error.message,
      ))
  )
    return new AppError('DATABASE_AWAY', '', { cause: error });
  return new AppError('INTERNAL', '', { cause: error });
}
