import { zValidator } from '@hono/zod-validator';
import type { ZodError, ZodType } from 'zod';
import { AppError } from '../platform/errors';

/** What does not fit is a BAD_REQUEST that names the first field. */
function refuse(error: Pick<ZodError, 'issues'>): never {
  const issue = error.issues[0];
  throw new AppError('BAD_REQUEST', issue ? `${issue.path.join('.')}: ${issue.message}`.slice(0, 400) : 'malformed');
}

export const validJson = <T extends ZodType>(schema: T) =>
  zValidator('json', schema, (result) => {
    if (!result.success) refuse(result.error);
  });

export const validQuery = <T extends ZodType>(schema: T) =>
  zValidator('query', schema, (result) => {
    if (!result.success) refuse(result.error);
  });
