// Decodes the shipped WOFF2 files to sfnt once, so that the browser and the server shape the very same bytes.
import { existsSync, mkdirSync, readFileSync, readdirSync, renameSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { createRequire } from 'node:module';

const require = createRequire(import.meta.url);
/** The files of a family by the axes they have, the most first. */
const AXES = ['full', 'standard', 'wdth', 'opsz', 'wght'];

/** "U+0000-00FF,U+0131" → [0, 255, 305, 305] */
function parseRanges(text) {
  return text.split(',').flatMap((part) => {
    const [from, to] = part.trim().replace('U+', '').split('-');
    return [parseInt(from, 16), parseInt(to ?? from, 16)];
  });
}

/** @param readFacts - core's reader of font files, with the engine it reads with. */
export async function buildFonts(root, outDir, families, readFacts) {
  const { decompress } = require('wawoff2');
  mkdirSync(outDir, { recursive: true });
  const manifest = { files: [], families: {} };
  for (const family of families) {
    const dir = join(root, 'node_modules', '@fontsource-variable', family);
    const unicode = JSON.parse(readFileSync(join(dir, 'unicode.json'), 'utf8'));
    const present = new Set(readdirSync(join(dir, 'files')));
    const nameOf = (subset, axes, style) => `${family}-${subset.replace(/[[\]]/g, '')}-${axes}-${style}.woff2`;
    const subsets = Object.keys(unicode);
    // One choice for all subsets: letters of one word may come from several files.
    const axes = AXES.find((a) => subsets.every((subset) => present.has(nameOf(subset, a, 'normal'))));
    manifest.families[family] = { italic: false, axes: [] };
    let facts = null;
    for (const [subset, ranges] of Object.entries(unicode)) {
      for (const style of ['normal', 'italic']) {
        const name = nameOf(subset, axes, style);
        if (!present.has(name)) continue;
        const path = `${family}/${name.replace('.woff2', '.ttf')}`;
        const out = join(outDir, path);
        if (!existsSync(out)) {
          mkdirSync(dirname(out), { recursive: true });
          const sfnt = (await decompress(readFileSync(join(dir, 'files', name)))).slice();
          writeFileSync(`${out}.part`, sfnt);
          renameSync(`${out}.part`, out);
        }
        facts ??= readFacts(readFileSync(out));
        manifest.families[family].axes = facts.axes;
        if (style === 'italic') manifest.families[family].italic = true;
        manifest.files.push({
          path,
          family,
          italic: style === 'italic',
          weights: facts.weights,
          ranges: parseRanges(ranges),
        });
      }
    }
  }
  writeFileSync(join(outDir, 'manifest.json'), JSON.stringify(manifest));
  return manifest;
}
