// Compiles what is in core/asm. The kernels of the painter are kept as text beside their source, so that browsers,
// servers and tests have the same bytes without fetching anything.
import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const OPTIONS = ['-O3', '--runtime', 'stub', '--noAssert', '--enable', 'simd', '--initialMemory', '1'];

/** @param source - a file of core/asm. @param out - the .wasm to write. */
export function compileKernel(source, out) {
  const asc = join(root, 'node_modules/assemblyscript/bin/asc.js');
  execFileSync(process.execPath, [asc, join(root, 'core/asm', source), '-o', out, ...OPTIONS], { stdio: 'inherit' });
}

/** The text of core/paint/pixels-wasm.ts for the kernels as they are. */
export function pixelKernelsText() {
  const dir = mkdtempSync(join(tmpdir(), 'kernel-'));
  try {
    const file = join(dir, 'pixels.wasm');
    compileKernel('pixels.ts', file);
    const lines = readFileSync(file)
      .toString('base64')
      .match(/.{1,110}/g);
    const text = lines.map((line) => `  '${line}'`).join(' +\n');
    return `/** core/asm/pixels.ts, compiled by scripts/build-kernels.mjs; base64. */\nexport const PIXELS_WASM =\n${text};\n`;
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
}

export function writePixelKernels() {
  const file = join(root, 'core/paint/pixels-wasm.ts');
  const text = pixelKernelsText();
  if (!existsSync(file) || readFileSync(file, 'utf8') !== text) writeFileSync(file, text);
}
