import { readFileSync } from 'node:fs';

/**
 * RGBA → I420 (BT.709 limited) in WebAssembly; see core/asm/i420.ts. Keeps the planes of a frame, so that only rows that
 * have changed need to come in.
 */
export interface I420Converter {
  /** @param rgba - whole rows from `top` on, opaque; `top` and their number are even. */
  take(rgba: Uint8Array | Uint8ClampedArray, top: number): void;
  /** @param out - takes width·height·3/2 bytes. */
  copyTo(out: Uint8Array): void;
}

interface KernelExports {
  memory: { buffer: ArrayBuffer; grow(pages: number): number };
  rgbaToI420(src: number, dst: number, width: number, height: number, from: number, to: number): void;
}

/** The compiled module keeps its stack below this address. */
const DATA_START = 1024;
const PAGE = 65536;
/** Rows that are converted at a time: few enough to stay in the processor's own memory in between. */
const STRIP = 32;

// Node's types leave WebAssembly to the DOM library; this is the part that is used.
declare const WebAssembly: {
  Module: new (bytes: Uint8Array) => object;
  Instance: new (module: object, imports: object) => { exports: unknown };
};

/** @throws RangeError if a side is odd. */
export function createI420Converter(wasmFile: string, width: number, height: number): I420Converter {
  if (width % 2 || height % 2) throw new RangeError(`sides must be even, got ${width}×${height}`);
  const instance = new WebAssembly.Instance(new WebAssembly.Module(readFileSync(wasmFile)), {
    env: {
      abort: () => {
        throw new Error('kernel aborted');
      },
    },
  });
  const kernel = instance.exports as KernelExports; // the exports of core/asm/i420.ts
  const stride = width * 4;
  const planes = DATA_START + stride * STRIP;
  const size = (width * height * 3) / 2;
  kernel.memory.grow(Math.max(0, Math.ceil((planes + size - kernel.memory.buffer.byteLength) / PAGE)));
  const memory = new Uint8Array(kernel.memory.buffer);
  return {
    take(rgba, top) {
      const rows = rgba.length / stride;
      if (rows % 2 || top % 2 || top + rows > height) throw new RangeError(`rows ${top} and ${rows} on do not fit`);
      for (let row = 0; row < rows; row += STRIP) {
        const end = Math.min(rows, row + STRIP);
        memory.set(rgba.subarray(row * stride, end * stride), DATA_START);
        kernel.rgbaToI420(DATA_START, planes, width, height, top + row, top + end);
      }
    },
    copyTo: (out) => out.set(memory.subarray(planes, planes + size)),
  };
}
