/**
 * Structural similarity of two pictures of one size, 1 for the same: mean over 8 × 8 blocks of luma.
 * @param a, b - RGBA, 8 bit. @see Z. Wang et al., "Image Quality Assessment: From Error Visibility to Structural
 * Similarity", IEEE Trans. Image Processing 13 (2004), eq. 13, with K1 = 0.01 and K2 = 0.03.
 */
export function ssim(a: Uint8Array | Buffer, b: Uint8Array | Buffer, width: number, height: number): number {
  const BLOCK = 8;
  const [c1, c2] = [(0.01 * 255) ** 2, (0.03 * 255) ** 2];
  const luma = (p: Uint8Array, i: number) => 0.2126 * p[i]! + 0.7152 * p[i + 1]! + 0.0722 * p[i + 2]!;
  let sum = 0;
  let blocks = 0;
  for (let y = 0; y + BLOCK <= height; y += BLOCK / 2)
    for (let x = 0; x + BLOCK <= width; x += BLOCK / 2) {
      let [ma, mb, aa, bb, ab] = [0, 0, 0, 0, 0];
      for (let j = 0; j < BLOCK; j++)
        for (let i = 0; i < BLOCK; i++) {
          const at = ((y + j) * width + x + i) * 4;
          const [p, q] = [luma(a, at), luma(b, at)];
          ma += p;
          mb += q;
          aa += p * p;
          bb += q * q;
          ab += p * q;
        }
      const n = BLOCK * BLOCK;
      [ma, mb] = [ma / n, mb / n];
      const [va, vb, cov] = [aa / n - ma * ma, bb / n - mb * mb, ab / n - ma * mb];
      sum += ((2 * ma * mb + c1) * (2 * cov + c2)) / ((ma * ma + mb * mb + c1) * (va + vb + c2));
      blocks++;
    }
  return sum / Math.max(1, blocks);
}
