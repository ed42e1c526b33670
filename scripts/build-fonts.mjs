// Decodes the shipped WOFF2 files to sfnt once, so that the browser and the server shape the very same bytes.
import { copyFileSync, existsSync, mkdirSync, readFileSync, readdirSync, renameSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { createRequire } from 'node:module';

const require = createRequire(import.meta.url);
/** The files of a family by the axes they have, the most first. */
const AXES = ['full', 'standard', 'wdth', 'opsz', 'wght', '400'];

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

/**
 * The files a package has, as [name, style, ranges it was cut out for]; ranges are null where it was not cut.
 * @param name - of the family; its files are called by it.
 */
function filesOf(dir, name) {
  if (!existsSync(join(dir, 'unicode.json'))) {
    const [only] = readdirSync(dir).filter((file) => file.endsWith('.woff2'));
    return [[join(dir, only), 'normal', null]];
  }
  const unicode = JSON.parse(readFileSync(join(dir, 'unicode.json'), 'utf8'));
  const present = new Set(readdirSync(join(dir, 'files')));
  const nameOf = (subset, axes, style) => `${name}-${subset.replace(/[[\]]/g, '')}-${axes}-${style}.woff2`;
  const subsets = Object.keys(unicode);
  // One choice for all subsets: letters of one word may come from several files.
  const axes = AXES.find((a) => subsets.every((subset) => present.has(nameOf(subset, a, 'normal'))));
  // A family of one file was not cut, whatever is said of it.
  if (subsets.length === 1) return [[join(dir, 'files', nameOf(subsets[0], axes, 'normal')), 'normal', null]];
  return Object.entries(unicode).flatMap(([subset, ranges]) =>
    ['normal', 'italic']
      .map((style) => [join(dir, 'files', nameOf(subset, axes, style)), style, parseRanges(ranges)])
      .filter(([file]) => present.has(basename(file))),
  );
}

/**
 * @param families - the package of each family, by the family's id.
 * @param readFacts - core's reader of font files, with the engine it reads with.
 */
export async function buildFonts(root, outDir, families, readFacts) {
  const { decompress } = require('wawoff2');
  mkdirSync(outDir, { recursive: true });
  const manifest = { files: [], families: {} };
  for (const [family, packageName] of Object.entries(families)) {
    const isFile = packageName.endsWith('.ttf');
    const source = join(root, 'node_modules', packageName);
    const dir = isFile ? join(root, 'node_modules', packageName.split('/')[0]) : source;
    // It goes wherever the font goes.
    mkdirSync(join(outDir, family), { recursive: true });
    copyFileSync(join(dir, 'LICENSE'), join(outDir, family, 'LICENSE.txt'));
    manifest.families[family] = { italic: false, axes: [] };
    let first = null;
    for (const [file, style, ranges] of isFile ? [[source, 'normal', null]] : filesOf(dir, family)) {
      const path = `${family}/${basename(file).replace('.woff2', '.ttf')}`;
      const out = join(outDir, path);
      if (!existsSync(out)) {
        const bytes = readFileSync(file);
        const sfnt = isFile ? bytes : (await decompress(bytes)).slice();
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
        ranges: ranges ? had(ranges, facts.ranges) : [...facts.ranges],
      });
    }
  }
  writeFileSync(join(outDir, 'manifest.json'), JSON.stringify(manifest));
  return manifest;
}
