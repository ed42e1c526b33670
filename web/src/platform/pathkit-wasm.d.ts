declare module 'pathkit-wasm/bin/pathkit.wasm?url' {
  const address: string;
  export default address;
}
