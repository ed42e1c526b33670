declare module 'wawoff2' {
  /** The sfnt of a WOFF2 file; a view of the decoder's memory. */
  export function decompress(bytes: Uint8Array): Promise<Uint8Array>;
  export function compress(bytes: Uint8Array): Promise<Uint8Array>;
}
