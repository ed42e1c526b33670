/** The command was typed wrongly: exit code 2. */
export class UsageError extends Error {}

/** A number that was typed for an option. @throws UsageError. */
export function numberOf(option: string, typed: string): number {
  if (typed.trim() === '' || !Number.isFinite(Number(typed)))
    throw new UsageError(`${option} takes a number; got ${typed}`);
  return Number(typed);
}
