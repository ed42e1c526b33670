/**
 * Contrast of letters against what is really behind them, cell by cell. In each cell of the frame the letters' own
 * pixels are compared with the pixels round about that are no letters (picture, band, shadow: whatever is painted
 * there).
 * @see W3C WCAG 2.2, definitions of relative luminance and contrast ratio; success criterion 1.4.3.
 */
export interface ContrastCell {
  /** Contrast ratio, 1 to 21. */
  readonly ratio: number;
  /** The cell in pixels of the pictures: left, top, right, bottom. */
  readonly box: readonly [number, number, number, number];
  /** Mean relative luminance behind the letters. */
  readonly behind: number;
}

/**
 * Large text needs 3 : 1, other text 4.5 : 1 (WCAG 1.4.3; large is 24 CSS pixels, here of a frame seen 1080 pixels high
 * or wide).
 */
export const LARGE_TEXT_SHARE = 24 / 1080;
export const wantedRatio = (sizeShare: number): number => (sizeShare >= LARGE_TEXT_SHARE ? 3 : 4.5);

const LINEAR = Float64Array.from({ length: 256 }, (_, v) => {
  const c = v / 255;
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
});

/** A channel of sRGB, 0 to 255, as light, 0 to 1. */
export const linearOf = (channel: number): number => LINEAR[channel]!;

/** Relative luminance of an sRGB pixel, 0 to 1. */
export const luminance = (r: number, g: number, b: number): number =>
  0.2126 * LINEAR[r]! + 0.7152 * LINEAR[g]! + 0.0722 * LINEAR[b]!;
export const contrastRatio = (a: number, b: number): number => (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);

const CELL = 16;
/** A pixel is a letter's from this share on, and background up to that one; between them lie edges. */
const LETTER = 0.9;
const GROUND = 0.08;
const FEWEST = 6;
/**
 * Ground counts as far as this from a letter, pixels: what lies beyond a band that hugs the words is not what they are
 * read against.
 */
const REACH = 4;

/** Pixels within {@link REACH} of a letter, along both axes: a running maximum over rows, then over columns. */
function nearLetters(letters: Uint8ClampedArray, width: number, height: number): Uint8Array {
  const rows = new Uint8Array(width * height);
  const near = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (letters[(y * width + x) * 4 + 1]! / 255 > LETTER)
        rows.fill(1, y * width + Math.max(0, x - REACH), y * width + Math.min(width, x + REACH + 1));
    }
  }
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (rows[y * width + x])
        for (let k = Math.max(0, y - REACH); k <= Math.min(height - 1, y + REACH); k++) near[k * width + x] = 1;
    }
  }
  return near;
}

/**
 * The cell in which letters stand out least; null where there are no letters.
 * @param picture - [width × height × 4], RGBA, as seen: ground and letters.
 * @param letters - [width × height × 4], the letters alone, white on black.
 */
export function worstContrast(
  picture: Uint8ClampedArray,
  letters: Uint8ClampedArray,
  width: number,
  height: number,
): ContrastCell | null {
  const near = nearLetters(letters, width, height);
  let worst: ContrastCell | null = null;
  for (let top = 0; top < height; top += CELL) {
    for (let left = 0; left < width; left += CELL) {
      const [right, bottom] = [Math.min(width, left + CELL), Math.min(height, top + CELL)];
      let [ink, inkCount, ground, groundCount] = [0, 0, 0, 0];
      for (let y = top; y < bottom; y++) {
        for (let x = left; x < right; x++) {
          const i = (y * width + x) * 4;
          const share = letters[i + 1]! / 255;
          if (share > LETTER) {
            ink += luminance(picture[i]!, picture[i + 1]!, picture[i + 2]!);
            inkCount++;
          } else if (share < GROUND && near[y * width + x]) {
            ground += luminance(picture[i]!, picture[i + 1]!, picture[i + 2]!);
            groundCount++;
          }
        }
      }
      if (inkCount < FEWEST || groundCount < FEWEST) continue;
      const ratio = contrastRatio(ink / inkCount, ground / groundCount);
      if (!worst || ratio < worst.ratio)
        worst = { ratio, box: [left, top, right, bottom], behind: ground / groundCount };
    }
  }
  return worst;
}
