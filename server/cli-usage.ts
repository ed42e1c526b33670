/** What was typed doesn't make sense; told with exit code 2. */
export class UsageError extends Error {}
