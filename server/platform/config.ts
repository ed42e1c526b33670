import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import * as z from 'zod';

/** Everything the processes take from outside; only the mains read it. */
const environment = z.object({
  DATABASE_URL: z.string().min(1).optional(),
  ESTRELLA_PORT: z.coerce.number().int().min(0).max(65535).default(4170),
  ESTRELLA_DATA: z.string().optional(),
  ESTRELLA_SENT: z.string().max(1000).optional(),
  ESTRELLA_WORKERS: z.coerce.number().int().min(0).max(64).default(1),
  ESTRELLA_LOG: z.enum(['debug', 'info', 'warn', 'error', 'silent']).default('info'),
  ESTRELLA_HOST: z.string().max(255).default('127.0.0.1'),
  ESTRELLA_HOSTS: z.string().max(2000).default(''),
  ESTRELLA_CHANNELS: z.string().max(4000).default(''),
  ESTRELLA_PASSWORD: z.string().max(200).optional(),
  ESTRELLA_TURN_SECONDS: z.coerce.number().min(1).max(86_400).default(600),
  ESTRELLA_SEED: z.enum(['0', '1']).default('1'),
});

/** The folder of the built files: this module is bundled into dist/server. */
const distDir = resolve(dirname(fileURLToPath(import.meta.url)), '..');

export interface Config {
  readonly databaseUrl: string;
  readonly port: number;
  readonly dataDir: string;
  /** The folder that folders to send to lie in. */
  readonly sentDir: string;
  readonly workers: number;
  readonly logLevel: string;
  readonly seed: boolean;
  /** How long a film is made before those of other pieces that wait are given a turn, milliseconds. */
  readonly turnMs: number;
  readonly assets: Assets;
  readonly access: Access;
  /** Addresses of channels that may be called, small letters; with none and no password, any may be. */
  readonly channels: readonly string[];
}

/** Who may reach the server. */
export interface Access {
  /** Address it listens on. */
  readonly listen: string;
  /** Host names beside loopback under which it may be called, lower case. */
  readonly hosts: readonly string[];
  /** Asked of everybody; null on loopback, where the machine's own user is trusted. */
  readonly password: string | null;
}

const isLoopback = (host: string): boolean => host === 'localhost' || host === '::1' || /^127\./.test(host);
/** Shorter ones are guessed in an afternoon. */
const LEAST_PASSWORD = 10;

/** Files that ship with the app. */
export interface Assets {
  readonly webDir: string;
  /** The player of pages that stand alone. */
  readonly pageDir: string;
  readonly fontsDir: string;
  readonly dictionariesDir: string;
  readonly wasmFile: string;
  readonly serverDir: string;
}

export const assets: Assets = {
  webDir: join(distDir, 'web'),
  pageDir: join(distDir, 'page'),
  fontsDir: join(distDir, 'fonts'),
  dictionariesDir: join(distDir, 'dictionaries'),
  wasmFile: join(distDir, 'i420.wasm'),
  serverDir: join(distDir, 'server'),
};

/** @throws Error with one line a person can act on. */
export function readConfig(env: NodeJS.ProcessEnv): Config {
  const parsed = environment.safeParse(env);
  if (!parsed.success)
    throw new Error(
      `the environment is not usable: ${parsed.error.issues.map((i) => `${i.path.join('.')}: ${i.message}`).join('; ')}`,
    );
  const e = parsed.data;
  if (!e.DATABASE_URL) throw new Error('DATABASE_URL is not set; ./start sets it for the project’s own PostgreSQL');
  const password = e.ESTRELLA_PASSWORD ?? null;
  if (!isLoopback(e.ESTRELLA_HOST) && (password === null || password.length < LEAST_PASSWORD))
    throw new Error(
      `to listen on ${e.ESTRELLA_HOST}, set ESTRELLA_PASSWORD to ${LEAST_PASSWORD} characters or more: whoever reaches the server could change everything`,
    );
  const hosts = e.ESTRELLA_HOSTS.split(',')
    .map((host) => host.trim().toLowerCase())
    .filter(Boolean);
  const access: Access = {
    listen: e.ESTRELLA_HOST,
    hosts: isLoopback(e.ESTRELLA_HOST) ? hosts : [...hosts, e.ESTRELLA_HOST.toLowerCase()],
    password,
  };
  return {
    databaseUrl: e.DATABASE_URL,
    port: e.ESTRELLA_PORT,
    dataDir: resolve(e.ESTRELLA_DATA ?? join(distDir, '..', '.data')),
    sentDir: resolve(e.ESTRELLA_SENT ?? join(e.ESTRELLA_DATA ?? join(distDir, '..', '.data'), 'sent')),
    workers: e.ESTRELLA_WORKERS,
    logLevel: e.ESTRELLA_LOG,
    seed: e.ESTRELLA_SEED === '1',
    turnMs: e.ESTRELLA_TURN_SECONDS * 1000,
    assets,
    access,
    channels: e.ESTRELLA_CHANNELS.split(',')
      .map((address) => address.trim().toLowerCase().replace(/\/+$/, ''))
      .filter(Boolean),
  };
}
