import { timingSafeEqual } from 'node:crypto';
import { getConnInfo } from '@hono/node-server/conninfo';
import type { Context } from 'hono';
import { createMiddleware } from 'hono/factory';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import type { Access } from '../platform/config';
import { AppError } from '../platform/errors';

/**
 * Who may talk to the server. It listens on loopback, yet any web page in the same browser can reach loopback: by
 * posting to it, and, by DNS rebinding, under a name of its own. So requests must name a host that is ours, and must
 * not come from a foreign page.
 */
const LOOPBACK = new Set(['127.0.0.1', 'localhost', '[::1]']);

/** Host names without the port, in lower case. */
const hostName = (host: string): string => host.toLowerCase().replace(/:\d+$/, '');

/** @param extra - names beside loopback under which this server may be called. */
export function isOurHost(host: string | undefined, extra: readonly string[]): boolean {
  if (!host) return false;
  const name = hostName(host);
  return LOOPBACK.has(name) || extra.includes(name);
}

/**
 * Whether a request was made by a page of another site, as far as the browser says (Fetch Metadata, W3C; Origin, RFC
 * 6454).
 */
export function isForeign(headers: { get(name: string): string | null | undefined }, host: string): boolean {
  const site = headers.get('sec-fetch-site');
  if (site && site !== 'same-origin' && site !== 'none') return true;
  const origin = headers.get('origin');
  if (!origin) return false;
  try {
    return new URL(origin).host.toLowerCase() !== host.toLowerCase();
  } catch {
    return true; // "null": a sandboxed or local page
  }
}

const isSame = (a: string, b: string): boolean => {
  const [x, y] = [Buffer.from(a), Buffer.from(b)];
  return x.length === y.length && timingSafeEqual(x, y);
};

/** The password of a Basic authorization header (RFC 7617), whatever the name. */
function passwordOf(header: string | undefined): string | null {
  const encoded = /^basic\s+([A-Za-z0-9+/=]+)$/i.exec(header ?? '')?.[1];
  if (!encoded) return null;
  const text = Buffer.from(encoded, 'base64').toString('utf8');
  return text.includes(':') ? text.slice(text.indexOf(':') + 1) : null;
}

/** The host a request names. */
export const hostOf = (c: Context): string => c.req.header('host') ?? new URL(c.req.url).host;

/**
 * Whether a request may be answered: it names a host of ours and comes from no foreign page. For `hono/csrf`, which
 * asks with an origin.
 */
export const isOwnOrigin =
  (access: Access) =>
  (origin: string, c: Context): boolean => {
    const host = hostOf(c);
    return (
      isOurHost(host, access.hosts) &&
      !isForeign({ get: (name) => (name === 'origin' ? origin : c.req.header(name)) }, host)
    );
  };

/** The address that asks; one name for all who call without a connection, as tests do. */
export function addressOf(c: Context): string {
  try {
    return getConnInfo(c).remote.address ?? 'local';
  } catch {
    return 'local';
  }
}

/** Wrong passwords that are answered after a pause that doubles; after so many in a quarter of an hour none is looked at. */
const MAX_GUESSES = 30;
const GUESS_SECONDS = 900;
const [FIRST_PAUSE_MS, LONGEST_PAUSE_MS] = [100, 5000];

/** Makes guessing slow, by address. */
export function createGuesses(pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms))) {
  const limiter = new RateLimiterMemory({ points: MAX_GUESSES, duration: GUESS_SECONDS });
  return {
    /** Waits as long as a wrong password costs. @throws AppError TOO_MANY_REQUESTS. */
    async wait(address: string): Promise<void> {
      const guess = await limiter.consume(address).catch(() => null);
      if (!guess) throw new AppError('TOO_MANY_REQUESTS');
      await pause(Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** (guess.consumedPoints - 1)));
    },
  };
}

/** Names of the files a page consists of may be asked for by a link from anywhere; data may not. */
export const guard = (access: Access, guesses = createGuesses()) =>
  createMiddleware(async (c, next) => {
    const host = hostOf(c);
    if (!isOurHost(host, access.hosts)) throw new AppError('FOREIGN_PAGE');
    if (c.req.path.startsWith('/api') && isForeign({ get: (name) => c.req.header(name) }, host))
      throw new AppError('FOREIGN_PAGE');
    if (access.password !== null) {
      const given = passwordOf(c.req.header('authorization'));
      const isRight = given !== null && isSame(given, access.password);
      if (given !== null && !isRight) await guesses.wait(addressOf(c));
      if (!isRight) {
        c.header('WWW-Authenticate', 'Basic realm="Estrella", charset="UTF-8"');
        throw new AppError('PASSWORD_NEEDED');
      }
    }
    await next();
  });

/**
 * Requests an address may make in ten seconds: far more than a desk needs, far fewer than would keep the server from
 * others.
 */
const REQUESTS = 3000;
const SECONDS = 10;

export function rateLimit(points = REQUESTS) {
  const limiter = new RateLimiterMemory({ points, duration: SECONDS });
  return createMiddleware(async (c, next) => {
    try {
      await limiter.consume(addressOf(c));
    } catch {
      c.header('Retry-After', String(SECONDS));
      throw new AppError('TOO_MANY_REQUESTS');
    }
    await next();
  });
}
