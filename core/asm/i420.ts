// AssemblyScript: RGBA (8 bit, opaque) to planar I420, BT.709 limited range. The same file runs in Node and in browsers.
// Coefficients are BT.709-6 in 14-bit fixed point: Y = 16 + 219·(0.2126 R + 0.7152 G + 0.0722 B)/255, and so on; each row
// of the chroma coefficients sums to nothing, so that grey has none. Chroma is the mean of 2×2 pixels.
// Eight pixels of two rows are done at once (WebAssembly SIMD); the rest of a row one pair at a time.

const YR: i32 = 2991;
const YG: i32 = 10064;
const YB: i32 = 1016;
const UR: i32 = -1649;
const UG: i32 = -5547;
const UB: i32 = 7196;
const VR: i32 = 7196;
const VG: i32 = -6536;
const VB: i32 = -660;
const Y_OFFSET: i32 = (16 << 14) + 8192;
const C_OFFSET: i32 = (128 << 16) + 32768;

// @ts-ignore: decorator
@inline
function luma(p: i32): u8 {
  return <u8>((YR * load<u8>(p) + YG * load<u8>(p, 1) + YB * load<u8>(p, 2) + Y_OFFSET) >> 14);
}

// Sums neighbouring lanes of two vectors: [a0+a1, a2+a3, b0+b1, b2+b3].
// @ts-ignore: decorator
@inline
function pairSums(a: v128, b: v128): v128 {
  return i32x4.add(v128.shuffle<i32>(a, b, 0, 2, 4, 6), v128.shuffle<i32>(a, b, 1, 3, 5, 7));
}

// @ts-ignore: decorator
@inline
function luma4(pixels: v128, k: v128): v128 {
  const low = i32x4.dot_i16x8_s(i16x8.extend_low_i8x16_u(pixels), k);
  const high = i32x4.dot_i16x8_s(i16x8.extend_high_i8x16_u(pixels), k);
  return i32x4.shr_s(i32x4.add(pairSums(low, high), i32x4.splat(Y_OFFSET)), 14);
}

// Four pixels of two rows → two sums of 2×2 as 16-bit RGBA.
// @ts-ignore: decorator
@inline
function blockSums(a: v128, b: v128): v128 {
  const low = i16x8.add(i16x8.extend_low_i8x16_u(a), i16x8.extend_low_i8x16_u(b));
  const high = i16x8.add(i16x8.extend_high_i8x16_u(a), i16x8.extend_high_i8x16_u(b));
  return i16x8.add(v128.shuffle<i64>(low, high, 0, 2), v128.shuffle<i64>(low, high, 1, 3));
}

// @ts-ignore: decorator
@inline
function chroma4(left: v128, right: v128, k: v128): v128 {
  const sums = pairSums(i32x4.dot_i16x8_s(left, k), i32x4.dot_i16x8_s(right, k));
  const c = i32x4.shr_s(i32x4.add(sums, i32x4.splat(C_OFFSET)), 16);
  const narrow = i16x8.narrow_i32x4_s(c, c);
  return i8x16.narrow_i16x8_u(narrow, narrow);
}

/**
 * Pixels [left, right) of rows [from, to) of a frame; all must be even, and width and height. `src` holds just these rows from
 * `left` on, each `stride` bytes long, `dst` the planes of the whole frame, width·height·3/2 bytes.
 */
export function rgbaToI420(
  src: i32,
  stride: i32,
  dst: i32,
  width: i32,
  height: i32,
  left: i32,
  right: i32,
  from: i32,
  to: i32,
): void {
  const uBase = dst + width * height;
  const vBase = uBase + ((width * height) >> 2);
  const half = width >> 1;
  const ky = i16x8(2991, 10064, 1016, 0, 2991, 10064, 1016, 0);
  const ku = i16x8(-1649, -5547, 7196, 0, -1649, -5547, 7196, 0);
  const kv = i16x8(7196, -6536, -660, 0, 7196, -6536, -660, 0);
  for (let y = from; y < to; y += 2) {
    let a = src + (y - from) * stride;
    let b = a + stride;
    let ya = dst + y * width + left;
    let yb = ya + width;
    let u = uBase + (y >> 1) * half + (left >> 1);
    let v = vBase + (y >> 1) * half + (left >> 1);
    let x = left;
    for (; x + 8 <= right; x += 8) {
      const a0 = v128.load(a);
      const a1 = v128.load(a, 16);
      const b0 = v128.load(b);
      const b1 = v128.load(b, 16);
      const la = i16x8.narrow_i32x4_s(luma4(a0, ky), luma4(a1, ky));
      const lb = i16x8.narrow_i32x4_s(luma4(b0, ky), luma4(b1, ky));
      const lumas = i8x16.narrow_i16x8_u(la, lb);
      v128.store_lane<i64>(ya, lumas, 0);
      v128.store_lane<i64>(yb, lumas, 1);
      const near = blockSums(a0, b0);
      const far = blockSums(a1, b1);
      v128.store_lane<i32>(u, chroma4(near, far, ku), 0);
      v128.store_lane<i32>(v, chroma4(near, far, kv), 0);
      a += 32;
      b += 32;
      ya += 8;
      yb += 8;
      u += 4;
      v += 4;
    }
    for (; x < right; x += 2) {
      store<u8>(ya, luma(a));
      store<u8>(ya, luma(a + 4), 1);
      store<u8>(yb, luma(b));
      store<u8>(yb, luma(b + 4), 1);
      const r = <i32>load<u8>(a) + <i32>load<u8>(a, 4) + <i32>load<u8>(b) + <i32>load<u8>(b, 4);
      const g = <i32>load<u8>(a, 1) + <i32>load<u8>(a, 5) + <i32>load<u8>(b, 1) + <i32>load<u8>(b, 5);
      const bl = <i32>load<u8>(a, 2) + <i32>load<u8>(a, 6) + <i32>load<u8>(b, 2) + <i32>load<u8>(b, 6);
      store<u8>(u, <u8>((UR * r + UG * g + UB * bl + C_OFFSET) >> 16));
      store<u8>(v, <u8>((VR * r + VG * g + VB * bl + C_OFFSET) >> 16));
      a += 8;
      b += 8;
      ya += 2;
      yb += 2;
      u++;
      v++;
    }
  }
}
