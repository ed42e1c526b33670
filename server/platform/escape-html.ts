const NAMED: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

/** Text as it stands in HTML, also within quotation marks. */
export const escapeHtml = (text: string): string => text.replace(/[&<>"]/g, (c) => NAMED[c] ?? c);
