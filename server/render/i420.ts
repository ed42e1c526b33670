import { readFileSync } from 'node:fs';
import type { Rect } from '@core/paint';

/**
 * RGBA → I420 (BT.709 limited) in WebAssembly; see core/asm/i420.ts. Keeps the planes of a frame, so that only what has
 * changed needs to come in.
 */
export interface I420Converter {
  /**
   * @param rgba - opaque pixels, the first of them that of the rectangle's left top corner.
   * @param rowPixels - pixels of a row of it, of which the first are the rectangle's.
   * @param rect - where it belongs in the frame; all even.
   * @throws RangeError if it does not fit.
   */
  take(rgba: Uint8Array, rowPixels: number, rect: Rect): void;
  /** @param out - takes width·height·3/2 bytes. */
  copyTo(out: Uint8Array): void;
}

interface KernelExports {
  memory: { buffer: ArrayBuffer; grow(pages: number): number };
  rgbaToI420(
    ...places: [
      ...[src: number, stride: number, dst: number, width: number, height: number],
      ...[left: number, right: number, from: number, to: number],
    ]
  ): void;
}

/** The compiled module keeps its stack below this address. */
const DATA_START = 1024;
const PAGE = 65536;
/** Whole rows that are converted at a time: few enough to stay in the processor's own memory in between. */
const STRIP = 32;
const MIN_WIDTH = 256;

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
  /** Pixels that come in at a time. */
  const room = Math.max(MIN_WIDTH, width) * STRIP;
  const planes = DATA_START + room * 4;
  const size = (width * height * 3) / 2;
  kernel.memory.grow(Math.max(0, Math.ceil((planes + size - kernel.memory.buffer.byteLength) / PAGE)));
  const memory = new Uint8Array(kernel.memory.buffer);
  return {
    take(rgba, rowPixels, rect) {
      const [left, top, right, bottom] = rect;
      const isWithin =
        left >= 0 &&
        top >= 0 &&
        right <= width &&
        bottom <= height &&
        right - left <= rowPixels &&
        2 * rowPixels <= room;
      const stride = rowPixels * 4;
      if (!isWithin || rect.some((side) => side % 2) || rgba.length < (bottom - top - 1) * stride + (right - left) * 4)
        throw new RangeError(`${rect.join()} does not fit`);
      // Rows are copied with what follows them: of a surface not much larger than the rectangle that is the quickest.
      const strip = 2 * Math.floor(room / rowPixels / 2);
      for (let row = top; row < bottom; row += strip) {
        const end = Math.min(bottom, row + strip);
        memory.set(rgba.subarray((row - top) * stride, (end - top) * stride), DATA_START);
        kernel.rgbaToI420(DATA_START, stride, planes, width, height, left, right, row, end);
      }
    },
    copyTo: (out) => out.set(memory.subarray(planes, planes + size)),
  };
}
