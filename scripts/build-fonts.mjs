// Decodes the shipped WOFF2 files to sfnt once, so that the browser and the server shape the very same bytes.
import { copyFileSync, existsSync, mkdirSync, readFileSync, readdirSync, renameSync, writeFileSync } from 'node:fs';
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

/** What a file was cut out for, as far as it has it: families miss letters of the subset that they are cut by. */
function had(claimed, ranges) {
  const out = [];
  for (let i = 0; i < claimed.length; i += 2) {
    for (let j = 0; j < ranges.length; j += 2) {
      const [from, to] = [Math.max(claimed[i], ranges[j]), Math.min(claimed[i + 1], ranges[j + 1])];
      if (from <= to) out.push(from, to);
    }
  }
  return out;
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
    // It goes wherever the font goes.
    mkdirSync(join(outDir, family), { recursive: true });
    copyFileSync(join(dir, 'LICENSE'), join(outDir, family, 'LICENSE.txt'));
    manifest.families[family] = { italic: false, axes: [] };
    let first = null;
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
        const facts = readFacts(readFileSync(out));
        if (!facts) continue;
        first ??= facts;
        manifest.families[family].axes = first.axes;
        if (style === 'italic') manifest.families[family].italic = true;
        manifest.files.push({
          path,
          family,
          italic: style === 'italic',
          weights: first.weights,
          ranges: had(parseRanges(ranges), facts.ranges),
        });
      }
    }
  }
  writeFileSync(join(outDir, 'manifest.json'), JSON.stringify(manifest));
  return manifest;
}
