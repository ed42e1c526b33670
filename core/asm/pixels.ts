// AssemblyScript: effects that change pixels, RGBA of 8 bits, colours not multiplied by alpha. One file for browsers and
// servers, so that both give the same bytes. `x0` and `y0` say where the pixels stand in the frame: what has a grain or
// a grid then looks the same however the frame is cut.

const TAU: f64 = 6.283185307179586;

// An integer hash (Wang's, with a seed), uniform over 32 bits.
// @ts-ignore: decorator
@inline
function hash(x: i32, y: i32, seed: u32): u32 {
  let h = <u32>x * 374761393 + <u32>y * 668265263 + seed * 2246822519;
  h = (h ^ (h >> 13)) * 1274126177;
  h = (h ^ (h >> 16)) * 2654435761;
  return h ^ (h >> 15);
}

// @ts-ignore: decorator
@inline
function clamp(v: f64): u8 {
  return <u8>(v <= 0 ? 0 : v >= 255 ? 255 : v + 0.5);
}

/** Each channel through a table of its own: 3 × 256 bytes. */
export function channels(p: i32, pixels: i32, table: i32): void {
  for (const end = p + pixels * 4; p < end; p += 4) {
    store<u8>(p, load<u8>(table + <i32>load<u8>(p)));
    store<u8>(p, load<u8>(table + 256 + <i32>load<u8>(p, 1)), 1);
    store<u8>(p, load<u8>(table + 512 + <i32>load<u8>(p, 2)), 2);
  }
}

// Luma of BT.709 in eighths of a bit: the weights sum to 256.
// @ts-ignore: decorator
@inline
function luma(p: i32): i32 {
  return (54 * <i32>load<u8>(p) + 183 * <i32>load<u8>(p, 1) + 19 * <i32>load<u8>(p, 2) + 128) >> 8;
}

/** Each pixel becomes the colour of its luma in a table (256 of red, of green, of blue), by a share of 256. */
export function ramp(p: i32, pixels: i32, table: i32, share: i32): void {
  const rest = 256 - share;
  for (const end = p + pixels * 4; p < end; p += 4) {
    const l = luma(p);
    for (let c = 0; c < 3; c++)
      store<u8>(p + c, <u8>((rest * <i32>load<u8>(p + c) + share * <i32>load<u8>(table + c * 256 + l) + 128) >> 8));
  }
}

/** Opacity becomes luma times opacity: how a matte is seen by its brightness. */
export function lumaToAlpha(p: i32, pixels: i32): void {
  for (const end = p + pixels * 4; p < end; p += 4)
    store<u8>(p, <u8>((luma(p) * <i32>load<u8>(p, 3) + 127) / 255), 3);
}

/** Noise added to what is there, triangular about nothing. `cell` is the side of a grain in pixels. */
export function grain(
  p: i32, width: i32, height: i32, x0: i32, y0: i32, cell: f64, seed: u32, amount: f64, coloured: i32,
): void {
  for (let y = 0; y < height; y++) {
    const gy = <i32>Math.floor(<f64>(y + y0) / cell);
    for (let x = 0; x < width; x++, p += 4) {
      if (load<u8>(p, 3) == 0) continue;
      const h = hash(<i32>Math.floor(<f64>(x + x0) / cell), gy, seed);
      const n = (<f64>(h & 0xffff) + <f64>(h >> 16)) / 65535 - 1;
      if (coloured == 0) {
        for (let c = 0; c < 3; c++) store<u8>(p + c, clamp(<f64>load<u8>(p + c) + n * amount));
        continue;
      }
      for (let c = 0; c < 3; c++) {
        const own = hash(<i32>h, c, seed);
        const m = (<f64>(own & 0xffff) + <f64>(own >> 16)) / 65535 - 1;
        store<u8>(p + c, clamp(<f64>load<u8>(p + c) + m * amount));
      }
    }
  }
}

/** Squares of one colour each, the mean of what is in them, on a grid that stands in the frame. */
export function pixelate(p: i32, width: i32, height: i32, x0: i32, y0: i32, cell: i32): void {
  const stride = width * 4;
  let top = -(((y0 % cell) + cell) % cell);
  for (; top < height; top += cell) {
    const ya = top < 0 ? 0 : top;
    const yb = top + cell > height ? height : top + cell;
    let left = -(((x0 % cell) + cell) % cell);
    for (; left < width; left += cell) {
      const xa = left < 0 ? 0 : left;
      const xb = left + cell > width ? width : left + cell;
      let r: i64 = 0, g: i64 = 0, b: i64 = 0, a: i64 = 0;
      for (let y = ya; y < yb; y++)
        for (let q = p + y * stride + xa * 4, end = p + y * stride + xb * 4; q < end; q += 4) {
          const alpha = <i64>load<u8>(q, 3);
          r += alpha * <i64>load<u8>(q);
          g += alpha * <i64>load<u8>(q, 1);
          b += alpha * <i64>load<u8>(q, 2);
          a += alpha;
        }
      const n = <i64>(yb - ya) * <i64>(xb - xa);
      const half = a >> 1;
      const cr = a > 0 ? <u8>((r + half) / a) : 0;
      const cg = a > 0 ? <u8>((g + half) / a) : 0;
      const cb = a > 0 ? <u8>((b + half) / a) : 0;
      const ca = <u8>((a + (n >> 1)) / n);
      for (let y = ya; y < yb; y++)
        for (let q = p + y * stride + xa * 4, end = p + y * stride + xb * 4; q < end; q += 4) {
          store<u8>(q, cr);
          store<u8>(q, cg, 1);
          store<u8>(q, cb, 2);
          store<u8>(q, ca, 3);
        }
    }
  }
}

// What lies at a place between pixels (bilinear, colours weighed by alpha), written to `dst`. Outside is nothing.
function sample(src: i32, width: i32, height: i32, x: f64, y: f64, dst: i32): void {
  const fx = Math.floor(x), fy = Math.floor(y);
  const tx = x - fx, ty = y - fy;
  const ix = <i32>fx, iy = <i32>fy;
  let r: f64 = 0, g: f64 = 0, b: f64 = 0, a: f64 = 0;
  for (let k = 0; k < 4; k++) {
    const px = ix + (k & 1), py = iy + (k >> 1);
    if (px < 0 || py < 0 || px >= width || py >= height) continue;
    const weight = ((k & 1) == 1 ? tx : 1 - tx) * (k >> 1 == 1 ? ty : 1 - ty);
    const q = src + (py * width + px) * 4;
    const alpha = weight * <f64>load<u8>(q, 3);
    r += alpha * <f64>load<u8>(q);
    g += alpha * <f64>load<u8>(q, 1);
    b += alpha * <f64>load<u8>(q, 2);
    a += alpha;
  }
  if (a < 0.5) {
    store<u32>(dst, 0);
    return;
  }
  store<u8>(dst, clamp(r / a));
  store<u8>(dst, clamp(g / a), 1);
  store<u8>(dst, clamp(b / a), 2);
  store<u8>(dst, clamp(a), 3);
}

/** Dots on a turned grid, as large as what lies at their middle is bright. */
export function halftone(
  src: i32, dst: i32, width: i32, height: i32, x0: i32, y0: i32, cell: f64, cos: f64, sin: f64,
): void {
  const most = cell * 0.72;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++, dst += 4) {
      const fx = <f64>(x + x0) + 0.5, fy = <f64>(y + y0) + 0.5;
      const u = fx * cos + fy * sin, v = fy * cos - fx * sin;
      const cu = (Math.floor(u / cell) + 0.5) * cell, cv = (Math.floor(v / cell) + 0.5) * cell;
      sample(src, width, height, cu * cos - cv * sin - <f64>x0 - 0.5, cv * cos + cu * sin - <f64>y0 - 0.5, dst);
      const alpha = <f64>load<u8>(dst, 3);
      if (alpha == 0) continue;
      const radius = most * Math.sqrt(<f64>luma(dst) / 255);
      const away = Math.sqrt((u - cu) * (u - cu) + (v - cv) * (v - cv));
      const cover = radius - away + 0.5;
      store<u8>(dst, clamp(alpha * (cover <= 0 ? 0 : cover >= 1 ? 1 : cover)), 3);
    }
}

/** Pixels moved across waves that run along a direction. Phase in radians. */
export function wave(
  src: i32, dst: i32, width: i32, height: i32, x0: i32, y0: i32,
  amount: f64, length: f64, phase: f64, cos: f64, sin: f64,
): void {
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++, dst += 4) {
      const along = <f64>(x + x0) * cos + <f64>(y + y0) * sin;
      const by = amount * Math.sin((along / length) * TAU + phase);
      sample(src, width, height, <f64>x - by * sin, <f64>y + by * cos, dst);
    }
}

/** Pixels moved to and from a middle in rings. */
export function ripple(
  src: i32, dst: i32, width: i32, height: i32, cx: f64, cy: f64, amount: f64, length: f64, phase: f64,
): void {
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++, dst += 4) {
      const dx = <f64>x - cx, dy = <f64>y - cy;
      const r = Math.sqrt(dx * dx + dy * dy);
      const by = r < 1e-6 ? 0 : (amount * Math.sin((r / length) * TAU - phase)) / r;
      sample(src, width, height, <f64>x + dx * by, <f64>y + dy * by, dst);
    }
}

// Smooth noise between -1 and 1 (value noise on a grid, eased between).
function noise(x: f64, y: f64, seed: u32): f64 {
  const fx = Math.floor(x), fy = Math.floor(y);
  let tx = x - fx, ty = y - fy;
  tx = tx * tx * (3 - 2 * tx);
  ty = ty * ty * (3 - 2 * ty);
  const ix = <i32>fx, iy = <i32>fy;
  const a = <f64>hash(ix, iy, seed), b = <f64>hash(ix + 1, iy, seed);
  const c = <f64>hash(ix, iy + 1, seed), d = <f64>hash(ix + 1, iy + 1, seed);
  const top = a + (b - a) * tx, low = c + (d - c) * tx;
  return ((top + (low - top) * ty) / 4294967295.0) * 2 - 1;
}

/** Pixels moved by smooth noise with a little fine noise in it: edges look torn. */
export function tear(
  src: i32, dst: i32, width: i32, height: i32, x0: i32, y0: i32, amount: f64, size: f64, seed: u32,
): void {
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++, dst += 4) {
      const u = <f64>(x + x0) / size, v = <f64>(y + y0) / size;
      const dx = noise(u, v, seed) * 0.7 + noise(u * 4, v * 4, seed + 1) * 0.3;
      const dy = noise(u, v, seed + 2) * 0.7 + noise(u * 4, v * 4, seed + 3) * 0.3;
      sample(src, width, height, <f64>x + amount * dx, <f64>y + amount * dy, dst);
    }
}

/** Red moved one way and blue the other; the whole covers where any of the three does. */
export function chromatic(src: i32, dst: i32, spare: i32, width: i32, height: i32, dx: f64, dy: f64): void {
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++, dst += 4) {
      sample(src, width, height, <f64>x + dx, <f64>y + dy, spare);
      sample(src, width, height, <f64>x - dx, <f64>y - dy, spare + 4);
      const own = src + (y * width + x) * 4;
      const ra = <f64>load<u8>(spare, 3), ga = <f64>load<u8>(own, 3), ba = <f64>load<u8>(spare, 7);
      const a = Math.max(ra, Math.max(ga, ba));
      if (a == 0) {
        store<u32>(dst, 0);
        continue;
      }
      store<u8>(dst, clamp((<f64>load<u8>(spare) * ra) / a));
      store<u8>(dst, clamp((<f64>load<u8>(own, 1) * ga) / a), 1);
      store<u8>(dst, clamp((<f64>load<u8>(spare, 6) * ba) / a), 2);
      store<u8>(dst, clamp(a), 3);
    }
}
