declare module 'pathkit-wasm' {
  import type { PathEngine } from './path-operations';
  export default function init(options: { wasmBinary: Uint8Array }): Promise<PathEngine>;
}
