/**
 * Means of a plane over boxes, in constant time each by a summed-area table (F. Crow, "Summed-Area Tables for Texture
 * Mapping", SIGGRAPH 1984).
 * @param plane - [height × width], row-major. Not modified.
 * @returns the mean over the box of the given radius about a pixel, cut at the plane's edges.
 */
export function boxMeans(
  plane: Float32Array,
  width: number,
  height: number,
): (x: number, y: number, radius: number) => number {
  const sums = new Float64Array((width + 1) * (height + 1));
  for (let y = 0; y < height; y++) {
    let row = 0;
    for (let x = 0; x < width; x++) {
      row += plane[y * width + x]!;
      sums[(y + 1) * (width + 1) + x + 1] = sums[y * (width + 1) + x + 1]! + row;
    }
  }
  return (x, y, radius) => {
    const l = x < radius ? 0 : x - radius;
    const r = x + radius + 1 > width ? width : x + radius + 1;
    const top = y < radius ? 0 : y - radius;
    const bottom = y + radius + 1 > height ? height : y + radius + 1;
    const [above, below] = [top * (width + 1), bottom * (width + 1)];
    return (sums[below + r]! - sums[below + l]! - sums[above + r]! + sums[above + l]!) / ((r - l) * (bottom - top));
  };
}
