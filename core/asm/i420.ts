// AssemblyScript: RGBA (8 bit, opaque) to planar I420, BT.709 limited range. The same file runs in Node and in browsers.
// Coefficients are BT.709-6 in 16-bit fixed point: Y = 16 + 219·(0.2126 R + 0.7152 G + 0.0722 B)/255, and so on.
// Chroma is the mean of 2×2 pixels (MPEG-2 siting is ignored, as the encoder's own converter does by default).

const YR: i32 = 11966;
const YG: i32 = 40254;
const YB: i32 = 4064;
const UR: i32 = -6596;
const UG: i32 = -22189;
const UB: i32 = 28784;
const VR: i32 = 28784;
const VG: i32 = -26145;
const VB: i32 = -2640;

// @ts-ignore: decorator
@inline
function luma(p: i32): u8 {
  return <u8>((YR * load<u8>(p) + YG * load<u8>(p, 1) + YB * load<u8>(p, 2) + 32768 + (16 << 16)) >> 16);
}

/**
 * Width and height must be even. `src` holds width·height·4 bytes, `dst` takes width·height·3/2.
 */
export function rgbaToI420(src: i32, dst: i32, width: i32, height: i32): void {
  const uBase = dst + width * height;
  const vBase = uBase + ((width * height) >> 2);
  const half = width >> 1;
  const stride = width << 2;
  for (let y = 0; y < height; y += 2) {
    let a = src + y * stride;
    let b = a + stride;
    let ya = dst + y * width;
    let yb = ya + width;
    let u = uBase + (y >> 1) * half;
    let v = vBase + (y >> 1) * half;
    for (let x = 0; x < width; x += 2) {
      store<u8>(ya, luma(a));
      store<u8>(ya, luma(a + 4), 1);
      store<u8>(yb, luma(b));
      store<u8>(yb, luma(b + 4), 1);
      const r = <i32>load<u8>(a) + <i32>load<u8>(a, 4) + <i32>load<u8>(b) + <i32>load<u8>(b, 4);
      const g = <i32>load<u8>(a, 1) + <i32>load<u8>(a, 5) + <i32>load<u8>(b, 1) + <i32>load<u8>(b, 5);
      const bl = <i32>load<u8>(a, 2) + <i32>load<u8>(a, 6) + <i32>load<u8>(b, 2) + <i32>load<u8>(b, 6);
      store<u8>(u, <u8>((UR * r + UG * g + UB * bl + (128 << 18) + 131072) >> 18));
      store<u8>(v, <u8>((VR * r + VG * g + VB * bl + (128 << 18) + 131072) >> 18));
      a += 8;
      b += 8;
      ya += 2;
      yb += 2;
      u++;
      v++;
    }
  }
}
