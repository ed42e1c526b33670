/** A size as people say it: MB of a million bytes. */
export function megabytesText(bytes: number): string {
  if (bytes < 1e5) return `${Math.max(1, Math.round(bytes / 1000))} kB`;
  return bytes < 1e7 ? `${(bytes / 1e6).toFixed(1)} MB` : `${Math.round(bytes / 1e6)} MB`;
}
