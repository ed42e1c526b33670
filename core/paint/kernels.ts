import { PIXELS_WASM } from './pixels-wasm';

/** Pixels as the canvas hands them out: RGBA of 8 bits, colours not multiplied by alpha. */
export interface Pixels {
  readonly data: Uint8ClampedArray;
  readonly width: number;
  readonly height: number;
}

/** The functions of core/asm/pixels.ts; what they do is said there. Addresses are in bytes of the memory. */
interface KernelExports {
  readonly memory: { readonly buffer: ArrayBuffer; grow(pages: number): number };
  channels(p: number, pixels: number, table: number): void;
  ramp(p: number, pixels: number, table: number, share: number): void;
  lumaToAlpha(p: number, pixels: number): void;
  grain(
    p: number,
    width: number,
    height: number,
    x0: number,
    y0: number,
    cell: number,
    seed: number,
    amount: number,
    coloured: number,
  ): void;
  pixelate(p: number, width: number, height: number, x0: number, y0: number, cell: number): void;
  halftone(
    src: number,
    dst: number,
    width: number,
    height: number,
    x0: number,
    y0: number,
    cell: number,
    cos: number,
    sin: number,
  ): void;
  wave(
    src: number,
    dst: number,
    width: number,
    height: number,
    x0: number,
    y0: number,
    amount: number,
    length: number,
    phase: number,
    cos: number,
    sin: number,
  ): void;
  ripple(
    src: number,
    dst: number,
    width: number,
    height: number,
    cx: number,
    cy: number,
    amount: number,
    length: number,
    phase: number,
  ): void;
  tear(
    src: number,
    dst: number,
    width: number,
    height: number,
    x0: number,
    y0: number,
    amount: number,
    size: number,
    seed: number,
  ): void;
  chromatic(src: number, dst: number, spare: number, width: number, height: number, dx: number, dy: number): void;
}

// What browsers and Node both have, and the language's own library does not name.
declare const WebAssembly: {
  Module: new (bytes: Uint8Array) => object;
  Instance: new (module: object, imports: object) => { exports: unknown };
};
declare const atob: (base64: string) => string;

let loaded: KernelExports | null = null;

/** The kernels of this thread, compiled when they are first needed. */
function kernels(): KernelExports {
  if (!loaded) {
    const bytes = Uint8Array.from(atob(PIXELS_WASM), (letter) => letter.charCodeAt(0));
    const fail = () => {
      throw new Error('kernel aborted');
    };
    const instance = new WebAssembly.Instance(new WebAssembly.Module(bytes), { env: { abort: fail } });
    loaded = instance.exports as KernelExports; // the exports of core/asm/pixels.ts
  }
  return loaded;
}

/** The compiled module keeps its stack below this address; tables and spare bytes follow, then pixels. */
const TABLE = 1024;
const PIXELS = TABLE + 1024;
const PAGE = 65536;

/** Where things are while a kernel runs. */
export interface Addresses {
  readonly src: number;
  /** As many bytes again, for kernels that cannot work in place. */
  readonly dst: number;
  /** 1024 bytes for a table. */
  readonly table: number;
  readonly pixels: number;
}

/**
 * Runs a kernel over pixels, in place.
 * @param table - up to 1024 bytes it looks things up in.
 * @param from - where the result stands: in place, or behind.
 */
export function runKernel(
  pixels: Pixels,
  run: (kernel: KernelExports, at: Addresses) => void,
  { table, from = 'src' }: { readonly table?: Uint8Array; readonly from?: 'src' | 'dst' } = {},
): void {
  const kernel = kernels();
  const bytes = pixels.width * pixels.height * 4;
  const at: Addresses = { src: PIXELS, dst: PIXELS + bytes, table: TABLE, pixels: bytes / 4 };
  const needed = PIXELS + bytes * (from === 'dst' ? 2 : 1);
  const has = kernel.memory.buffer.byteLength;
  if (has < needed) kernel.memory.grow(Math.ceil((needed - has) / PAGE));
  const memory = new Uint8Array(kernel.memory.buffer);
  if (table) memory.set(table, TABLE);
  memory.set(pixels.data, PIXELS);
  run(kernel, at);
  pixels.data.set(memory.subarray(at[from], at[from] + bytes));
}
