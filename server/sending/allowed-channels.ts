import type { Config } from '../platform/config';
import { AppError } from '../platform/errors';

/**
 * Which channels may be called. Whoever sits at the machine may call any address; once the server is open to others, it
 * would call addresses for them that only it can reach, so its owner names those that may be (ESTRELLA_CHANNELS).
 * @throws AppError SEND_REFUSED.
 */
export function allowChannel({ access, channels }: Pick<Config, 'access' | 'channels'>, address: string): void {
  if (access.password === null && channels.length === 0) return;
  if (!channels.includes(address.toLowerCase()))
    throw new AppError('SEND_REFUSED', 'this server may not call that address; its owner sets ESTRELLA_CHANNELS');
}
