import * as z from 'zod';
import { LONGEST, lagSchema } from '../../motion';

const lag = lagSchema(LONGEST.inside);

/** How time goes within a group, counted from its start. Lags in beats are as long as those that follow its start. */
export const groupTimeSchema = z.strictObject({
  /** Seconds inside for one outside. */
  speed: z.number().min(0).max(16),
  /** What is inside plays so long and begins anew; null plays once. */
  repeat: lag.nullable(),
  /** Every other time it plays backwards. */
  turns: z.boolean(),
  /** It stands still from so long inside on; null never. */
  freeze: lag.nullable(),
});
export type GroupTime = z.infer<typeof groupTimeSchema>;
export const NEW_GROUP_TIME: GroupTime = { speed: 1, repeat: null, turns: false, freeze: null };
