// Builds everything into dist/: fonts, the WebAssembly kernel, the server (esbuild) and the interface (Vite).
import { copyFileSync, existsSync, mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';
import { buildFonts } from './build-fonts.mjs';
import { noticesInScript, writeNotices } from './notices.mjs';
import { compileKernel, writePixelKernels } from './build-kernels.mjs';

// Whoever starts the build (a test runner, say), what is built is what people use.
process.env.NODE_ENV = 'production';
const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const dist = join(root, 'dist');
mkdirSync(dist, { recursive: true });
// Chunks are named by their content, so those of earlier builds would stay for ever.
for (const name of existsSync(join(dist, 'server')) ? readdirSync(join(dist, 'server')) : [])
  if (name.startsWith('part-')) rmSync(join(dist, 'server', name));

await build({
  entryPoints: {
    'font-facts': join(root, 'core/text/font-facts.ts'),
    'font-families': join(root, 'core/text/font-families.ts'),
  },
  outdir: join(dist, 'build'),
  outExtension: { '.js': '.mjs' },
  bundle: true,
  format: 'esm',
  platform: 'node',
  logLevel: 'warning',
});
const { readFontFacts } = await import(join(dist, 'build', 'font-facts.mjs'));
const { FONT_FAMILY_IDS, SUPPORT_FAMILIES } = await import(join(dist, 'build', 'font-families.mjs'));
const families = {
  ...Object.fromEntries(FONT_FAMILY_IDS.map((id) => [id, `@fontsource-variable/${id}`])),
  ...SUPPORT_FAMILIES,
};
const hb = await import('harfbuzzjs');
await buildFonts(root, join(dist, 'fonts'), families, (bytes) => readFontFacts(hb, bytes));

// Both spellings of English; the files are what hunspell reads.
mkdirSync(join(dist, 'dictionaries'), { recursive: true });
for (const name of ['en', 'en-gb'])
  for (const end of ['aff', 'dic'])
    copyFileSync(join(root, `node_modules/dictionary-${name}/index.${end}`), join(dist, `dictionaries/${name}.${end}`));

compileKernel('i420.ts', join(dist, 'i420.wasm'));
writePixelKernels();

/**
 * Long-lived processes take their packages from node_modules; what is started often carries them along, which halves
 * its start.
 */
async function buildServer(entries, options) {
  await build({
    entryPoints: Object.fromEntries(Object.entries(entries).map(([name, file]) => [name, join(root, file)])),
    outdir: join(dist, 'server'),
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    sourcemap: 'linked',
    alias: { '@core': join(root, 'core') },
    logLevel: 'warning',
    ...options,
  });
}
await buildServer(
  {
    main: 'demo/main.ts',
    'worker-main': 'server/worker-main.ts',
    'outside-main': 'server/outside-main.ts',
    'make-demo': 'demo/make-demo.ts',
    bench: 'bench/bench.ts',
    'preview-lateness': 'bench/preview-lateness.ts',
    'fit-meter': 'bench/fit-meter.ts',
    'hard-cases': 'bench/hard-cases.ts',
    'fit-confidence': 'bench/fit-confidence.ts',
    'beat-sets': 'bench/beat-sets.ts',
    'make-songs': 'bench/made/make-songs.ts',
    'make-grooves': 'bench/made/make-grooves.ts',
    'make-variants': 'bench/made/make-variants.ts',
    'template-sheets': 'bench/template-sheets.ts',
  },
  { packages: 'external' },
);
await buildServer(
  {
    cli: 'server/cli/main.ts',
    'paint-thread': 'server/render/paint-thread.ts',
    'heartbeat-thread': 'server/jobs/heartbeat-thread.ts',
    'loudness-thread': 'server/render/loudness-thread.ts',
    'analysis-thread': 'server/features/media/analysis-thread.ts',
    'font-thread': 'server/features/media/font-thread.ts',
    'thumbnail-thread': 'server/features/pieces/thumbnail-thread.ts',
  },
  {
    external: [
      '@napi-rs/canvas',
      'pg',
      'harfbuzzjs',
      'pathkit-wasm',
      'wawoff2',
      'file-type',
      'yauzl',
      'yazl',
      'commander',
    ],
    splitting: true,
    chunkNames: 'part-[hash]',
  },
);

if (!process.argv.includes('--no-web')) {
  const { build: buildWeb } = await import('vite');
  await buildWeb({ root: join(root, 'web'), configFile: join(root, 'web/vite.config.ts'), logLevel: 'warn' });
  // The player of pages that stand alone: one script that holds all it needs but fonts and the path engine.
  await buildWeb({
    root: join(root, 'web'),
    configFile: false,
    logLevel: 'error',
    publicDir: false,
    resolve: { alias: { '@core': join(root, 'core') } },
    plugins: [
      noticesInScript(),
      {
        name: 'path-engine-from-the-page',
        enforce: 'pre',
        resolveId: (id) => (id === 'pathkit-wasm/bin/pathkit.wasm?url' ? '\0path-engine' : null),
        load: (id) => (id === '\0path-engine' ? `export default '/pathkit.wasm'` : null),
      },
    ],
    build: {
      outDir: join(dist, 'page'),
      emptyOutDir: true,
      target: 'es2022',
      assetsInlineLimit: 1e9,
      rolldownOptions: { output: { inlineDynamicImports: true } },
      lib: { entry: join(root, 'web/src/page/main.ts'), formats: ['es'], fileName: () => 'player.js' },
    },
  });
  // The song of the guided first piece: the same bytes as the demo's, so that a server that has the demo knows it.
  await build({
    entryPoints: { songs: join(root, 'demo/songs.ts') },
    outdir: join(dist, 'build'),
    outExtension: { '.js': '.mjs' },
    bundle: true,
    format: 'esm',
    platform: 'node',
    alias: { '@core': join(root, 'core') },
    logLevel: 'warning',
  });
  const { saltAndString } = await import(join(dist, 'build', 'songs.mjs'));
  mkdirSync(join(dist, 'web/guide'), { recursive: true });
  writeFileSync(join(dist, 'web/guide/salt-and-string.wav'), saltAndString().wav);
}
writeNotices(root, dist);
process.exit(0); // the font decoder leaves a handle open
