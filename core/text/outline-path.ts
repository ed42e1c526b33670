/**
 * A path as SVG path data moved and scaled: x' = x·sx + dx, y' = y·sy + dy. Absolute M, L, H-less data as HarfBuzz
 * writes it.
 */
export function transformOutline(d: string, sx: number, sy: number, dx: number, dy: number): string {
  let out = '';
  let isX = true;
  for (const token of d.match(/[MLQCZz]|-?(?:\d+\.?\d*|\.\d+)(?:e-?\d+)?/g) ?? []) {
    const code = token.charCodeAt(0);
    if (code >= 65) {
      out += token;
      isX = true;
    } else {
      const value = Number(token) * (isX ? sx : sy) + (isX ? dx : dy);
      out += `${Math.round(value * 100) / 100} `;
      isX = !isX;
    }
  }
  return out;
}
