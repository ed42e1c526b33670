import { readFileSync } from 'node:fs';

/** RGBA → I420 (BT.709 limited) in WebAssembly; see core/asm/i420.ts. */
export interface I420Converter {
  /** @param rgba - width·height·4 bytes, opaque. @param out - takes width·height·3/2 bytes. Sides must be even. */
  convert(rgba: Uint8Array, width: number, height: number, out: Uint8Array): void;
}

interface KernelExports {
  memory: { buffer: ArrayBuffer; grow(pages: number): number };
  rgbaToI420(src: number, dst: number, width: number, height: number): void;
}

/** The compiled module keeps its stack below this address. */
const DATA_START = 1024;
const PAGE = 65536;

// Node's types leave WebAssembly to the DOM library; this is the part that is used.
declare const WebAssembly: {
  Module: new (bytes: Uint8Array) => object;
  Instance: new (module: object, imports: object) => { exports: unknown };
};

export function createI420Converter(wasmFile: string): I420Converter {
  const instance = new WebAssembly.Instance(new WebAssembly.Module(readFileSync(wasmFile)), {
    env: {
      abort: () => {
        throw new Error('kernel aborted');
      },
    },
  });
  const kernel = instance.exports as KernelExports; // the exports of core/asm/i420.ts
  return {
    convert(rgba, width, height, out) {
      if (width % 2 || height % 2) throw new RangeError(`sides must be even, got ${width}×${height}`);
      const inBytes = width * height * 4;
      const outBytes = (inBytes * 3) / 8;
      const needed = DATA_START + inBytes + outBytes;
      if (kernel.memory.buffer.byteLength < needed)
        kernel.memory.grow(Math.ceil((needed - kernel.memory.buffer.byteLength) / PAGE));
      const memory = new Uint8Array(kernel.memory.buffer);
      memory.set(rgba.subarray(0, inBytes), DATA_START);
      kernel.rgbaToI420(DATA_START, DATA_START + inBytes, width, height);
      out.set(memory.subarray(DATA_START + inBytes, DATA_START + inBytes + outBytes));
    },
  };
}
