// Types away (swc), and the globals of hot loops as constants of each module. Jest runs tests in a context of their own,
// where every look at a global goes through an interceptor: thirty times as slow as elsewhere.
import swc from '@swc/jest';

const HOT = [
  'Array',
  'Float32Array',
  'Float64Array',
  'Int16Array',
  'Int32Array',
  'Map',
  'Math',
  'Number',
  'Object',
  'Set',
  'String',
  'Uint8Array',
  'Uint8ClampedArray',
  'Uint16Array',
  'Uint32Array',
];

/** Those that a module uses and has no other meaning for. */
function withHotGlobals(code) {
  const own = HOT.filter(
    (name) =>
      new RegExp(`(?<![.\\w'"])${name}\\b`).test(code) &&
      !new RegExp(`(?:const|let|var|class|function|import[^;]*[{,]|\\bas)\\s+${name}\\b`).test(code),
  );
  return own.length === 0 ? code : `const {${own.join()}}=globalThis;${code}`;
}

export default {
  createTransformer(options) {
    const inner = swc.createTransformer(options);
    const changed = (result) => (result.code === undefined ? result : { ...result, code: withHotGlobals(result.code) });
    return {
      ...inner,
      process: (...given) => changed(inner.process(...given)),
      processAsync: async (...given) => changed(await inner.processAsync(...given)),
      getCacheKey: (...given) => `${inner.getCacheKey(...given)}1`,
    };
  },
};
