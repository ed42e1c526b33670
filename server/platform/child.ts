import { spawn } from 'node:child_process';
import type { ChildProcess, StdioOptions } from 'node:child_process';
import { Cancelled, TookTooLong } from './errors';

/**
 * Child processes. Each has a time limit, is killed when the work is called off, and dies with this process even when
 * that is killed outright: setpriv (util-linux, part of every Debian) asks the kernel for it with
 * prctl(PR_SET_PDEATHSIG).
 */
const DIES_WITH_PARENT = ['--pdeathsig', 'KILL', '--'] as const;

export interface ChildOptions {
  /** Milliseconds until it is killed. */
  readonly limitMs: number;
  readonly signal?: AbortSignal | undefined;
  readonly stdio: StdioOptions;
  /** Lower priority, for work that nobody waits for. */
  readonly isPatient?: boolean;
}

export interface Child {
  readonly process: ChildProcess;
  /** Why it was killed by us; null if it ended by itself. */
  readonly stopped: () => Cancelled | TookTooLong | null;
  readonly kill: () => void;
}

export function startChild(command: string, args: readonly string[], options: ChildOptions): Child {
  const nice = options.isPatient ? ['nice', '-n', '10'] : [];
  const child = spawn('setpriv', [...DIES_WITH_PARENT, ...nice, command, ...args], { stdio: options.stdio });
  let reason: Cancelled | TookTooLong | null = null;
  const kill = (why: Cancelled | TookTooLong | null) => {
    if (child.exitCode !== null || child.signalCode !== null) return;
    reason ??= why;
    child.kill('SIGKILL');
  };
  const timer = setTimeout(() => kill(new TookTooLong(command)), options.limitMs);
  const abort = () => kill(new Cancelled());
  if (options.signal?.aborted) abort();
  options.signal?.addEventListener('abort', abort, { once: true });
  const done = () => {
    clearTimeout(timer);
    options.signal?.removeEventListener('abort', abort);
  };
  child.once('close', done);
  child.once('error', done);
  return { process: child, stopped: () => reason, kill: () => kill(null) };
}

/** The last of what a program says went wrong. */
export function gatherErrors(child: ChildProcess): () => string {
  let errors = '';
  child.stderr?.on('data', (data: Buffer) => {
    errors = (errors + data.toString()).slice(-4000);
  });
  return () => errors.trim().split('\n').slice(-3).join(' / ').slice(0, 1000);
}
