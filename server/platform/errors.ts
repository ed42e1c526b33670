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
  BAD_REQUEST: 'The request isn’t valid: {}.',
  PASSWORD_NEEDED: 'This server needs a password.',
  FOREIGN_PAGE: 'This request came from another web page. Only Estrella’s own pages are allowed.',
  NOT_FOUND: 'This no longer exists.',
  ALREADY_THERE: 'This already exists: {}.',
  BODY_TOO_LARGE: 'The request is too large. Nothing was changed.',
  TOO_MANY_REQUESTS: 'Too many requests. Wait a moment and try again.',
  CONFLICT: 'This was changed in another tab or window.',
  FILE_EMPTY: 'The file “{}” is empty. Choose another file.',
  FILE_TOO_LARGE: 'The file is larger than {}. Choose a smaller one.',
  FILE_UNKNOWN:
    '“{}” isn’t a type that can be imported. Choose a song (WAV, MP3, OGG, Opus, FLAC, M4A), a picture (PNG, JPEG, WebP, GIF), a clip (MP4, MOV, WebM, MKV) or a font (TTF, OTF, WOFF, WOFF2).',
  AUDIO_UNREADABLE: '“{}” has no readable sound. Save it again as WAV or MP3.',
  AUDIO_TOO_LONG: '“{}” is longer than an hour. Cut out the part you need and import that.',
  PICTURE_UNREADABLE: 'The picture “{}” is damaged and can’t be read. Choose another file.',
  FOOTAGE_UNREADABLE: 'The clip “{}” is damaged or has no picture that can be read. Save it again as MP4.',
  FOOTAGE_TOO_LONG: '“{}” is longer than ten minutes. Cut out the part you need and import that.',
  FOOTAGE_TOO_LARGE: 'The frames of “{}” have more than 36 megapixels. Scale it down and import it again.',
  FOOTAGE_TOO_MUCH: 'The piece has too much footage for a web page. Export a shorter range, or a video.',
  PICTURE_TOO_LARGE: '“{}” has more than 100 megapixels. Scale it down and import it again.',
  FONT_UNREADABLE:
    'The font “{}” can’t be read: it is damaged, or a collection of several fonts. Choose a TTF, OTF, WOFF or WOFF2 file.',
  NOT_A_PIECE_FILE: 'The file isn’t an Estrella project, or it is damaged. Choose another file.',
  PIECE_FILE_TOO_LARGE: 'The project file is too large. Your pieces are unchanged.',
  PIECE_VERSION_UNKNOWN:
    'The project file was saved by another version of Estrella (version {}). Update Estrella, then import it again.',
  PIECE_INVALID: 'The project file is damaged ({}). Your pieces are unchanged.',
  STORED_UNREADABLE: 'The saved piece can’t be read ({}). It was not changed; you can restore an earlier revision.',
  PIECE_MEDIA_MISSING: 'The project file has no “{}”. Save it again where it was made.',
  MEDIA_MISSING: 'A file of this piece is missing on the server: {}. Import it again.',
  NOTHING_TO_RENDER: 'The piece has no duration. Set its end after the first frame.',
  NO_CAPTIONS: 'The exported range has no captions. Add them in the Words panel.',
  SENT_BEFORE: 'The same file was published there before: {}. Nothing was published now.',
  NO_RENDER: 'The file to publish was deleted or its export failed. Export it again.',
  SEND_REFUSED: 'The destination refused the file: {}.',
  SEND_FAILED: 'Publishing failed: {}. The file is still here; try again.',
  SEND_LATER: 'Retrying automatically: {}.',
  KEPT_FULL: 'You have {} already, the maximum. Delete one first.',
  NO_TEMPLATE: '“{}” is a project, not a template. Import it on the home page and save it as a template there.',
  ROW_NOT_MADE: 'The row couldn’t be created: {}',
  ROW_HAS_MISTAKES: 'The run-through found: {}',
  TOO_HARD: '{} takes too long to draw for a thumbnail. You can still open and export it.',
  TOOK_TOO_LONG: '{} took too long and was stopped. Try again, or with less.',
  DISK_FULL: 'The disk is full. Free some space and try again; saved work is safe.',
  DISK_LOW: 'Little disk space is left: {}. Free some space and resume, or export anyway.',
  DATA_NEWER:
    'This data folder was used by a newer Estrella ({}). Start that version, or choose another folder with --data.',
  DATABASE_AWAY: 'The database isn’t responding. Your edits are stored in this browser and saved when it is back.',
  MEDIA_FAILED: '“{}” couldn’t be prepared. Import it again.',
  ENCODER_FAILED: 'The video couldn’t be encoded: {}. Try again.',
  WORKER_DIED: 'The export was interrupted several times. Try again.',
  INTERNAL: 'The server had an internal error. Saved work is safe; try again.',
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
