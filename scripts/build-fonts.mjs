// Decodes the shipped WOFF2 files to sfnt once, so that the browser and the server shape the very same bytes.
import { existsSync, mkdirSync, readFileSync, readdirSync, renameSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { createRequire } from 'node:module';

const require = createRequire(import.meta.url);

/** "U+0000-00FF,U+0131" → [0, 255, 305, 305] */
function parseRanges(text) {
  return text.split(',').flatMap((part) => {
    const [from, to] = part.trim().replace('U+', '').split('-');
    return [parseInt(from, 16), parseInt(to ?? from, 16)];
  });
}

export async function buildFonts(root, outDir, families) {
  const { decompress } = require('wawoff2');
  mkdirSync(outDir, { recursive: true });
  const manifest = { files: [], families: {} };
  for (const family of families) {
    const dir = join(root, 'node_modules', '@fontsource-variable', family);
    const unicode = JSON.parse(readFileSync(join(dir, 'unicode.json'), 'utf8'));
    const meta = JSON.parse(readFileSync(join(dir, 'metadata.json'), 'utf8'));
    const present = new Set(readdirSync(join(dir, 'files')));
    manifest.families[family] = { minWeight: Number(meta.variable.wght.min), maxWeight: Number(meta.variable.wght.max), italic: false };
    for (const [subset, ranges] of Object.entries(unicode)) {
      for (const style of ['normal', 'italic']) {
        const name = `${family}-${subset.replace(/[[\]]/g, '')}-wght-${style}.woff2`;
        if (!present.has(name)) continue;
        const path = `${family}/${name.replace('.woff2', '.ttf')}`;
        const out = join(outDir, path);
        if (!existsSync(out)) {
          mkdirSync(dirname(out), { recursive: true });
          const sfnt = (await decompress(readFileSync(join(dir, 'files', name)))).slice();
          writeFileSync(`${out}.part`, sfnt);
          renameSync(`${out}.part`, out);
        }
        if (style === 'italic') manifest.families[family].italic = true;
        manifest.files.push({ path, family, italic: style === 'italic', ranges: parseRanges(ranges) });
      }
    }
  }
  writeFileSync(join(outDir, 'manifest.json'), JSON.stringify(manifest));
  return manifest;
}
