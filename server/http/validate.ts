import { zValidator } from '@hono/zod-validator';
import type { ZodType } from 'zod';
import { AppError } from '../platform/errors';

/** Validates a request part; what does not fit is a BAD_REQUEST that names the first field. */
export const validJson = <T extends ZodType>(schema: T) =>
  zValidator('json', schema, (result) => {
    if (!result.success) {
      const issue = result.error.issues[0];
      throw new AppError('BAD_REQUEST', issue ? `${issue.path.join('.')}: ${issue.message}` : 'malformed');
    }
  });
