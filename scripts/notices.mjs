// The licences of what is shipped: checked, gathered into one file, and put into scripts that are passed on.
import { copyFileSync, existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** Licences under which what we ship may be passed on, with their notices kept. */
const ALLOWED = new Set([
  ...['MIT', 'MIT-0', 'ISC', '0BSD', 'BSD', 'BSD-2-Clause', 'BSD-3-Clause', 'Apache-2.0', 'BlueOak-1.0.0', 'Unlicense'],
  ...['CC0-1.0', 'CC-BY-4.0', 'OFL-1.1', 'MPL-2.0', 'Zlib', 'Python-2.0', 'WTFPL', 'Bitstream-Vera'],
]);
/** Packages that say it in words of their own, by name: what their licence file says. */
const BY_HAND = { 'dejavu-fonts-ttf': 'Bitstream-Vera', 'combine-errors': 'MIT' };
const LICENCE_FILE = /^(licen[cs]e|copying|notice)([.-].*)?$/i;

/** Whether an SPDX expression allows what is in the list: one side of OR, all sides of AND. */
export function isAllowed(expression) {
  const text = expression.replace(/[()]/g, ' ').trim();
  if (/\bOR\b/.test(text)) return text.split(/\bOR\b/).some(isAllowed);
  return text.split(/\bAND\b/).every((one) => ALLOWED.has(one.trim()));
}

/** A package with its licence and the texts that must stay with it. */
export function readPackage(dir) {
  const facts = JSON.parse(readFileSync(join(dir, 'package.json'), 'utf8'));
  const said = typeof facts.license === 'object' ? facts.license?.type : facts.license;
  const texts = readdirSync(dir)
    .filter((name) => LICENCE_FILE.test(name))
    .sort()
    .map((name) => readFileSync(join(dir, name), 'utf8').trim());
  return { name: facts.name, version: facts.version, licence: BY_HAND[facts.name] ?? said ?? '', texts };
}

/**
 * Everything that goes into what is built: the packages that run, and the fonts and dictionaries among those that build.
 * @returns sorted by name, each version once.
 */
export function shippedPackages(root) {
  const { packages } = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8'));
  const isData = (path) => /node_modules\/(@fontsource(-variable)?\/|twemoji-colr-font|dejavu-fonts-ttf)/.test(path);
  const found = new Map();
  for (const [path, { dev, optional }] of Object.entries(packages)) {
    if (path === '' || (dev && !isData(path))) continue;
    const dir = join(root, path);
    // Optional packages are for other platforms where they are not there.
    if (!existsSync(join(dir, 'package.json'))) {
      if (optional || packages[path].peer) continue;
      throw new Error(`${path} is not installed`);
    }
    const one = readPackage(dir);
    found.set(`${one.name}@${one.version}`, one);
  }
  return [...found.values()].sort((a, b) => a.name.localeCompare(b.name));
}

/** What is wrong with the licences of packages, a line each. */
export const licenceProblems = (packages) =>
  packages.flatMap(({ name, licence }) =>
    licence === ''
      ? [`${name} does not say its licence`]
      : isAllowed(licence)
        ? []
        : [`${name} is under ${licence}, which is not on the list in scripts/notices.mjs`],
  );

/** The notices of packages as one text. */
export const noticeText = (packages) =>
  [
    'Estrella ships the work of others. Their names, licences and notices:',
    ...packages.map(({ name, version, licence, texts }) =>
      [`${name} ${version} (${licence})`, ...texts].join('\n\n').trim(),
    ),
  ].join(`\n\n${'-'.repeat(80)}\n\n`) + '\n';

/** Writes the notices beside the program: one file for all of it, and the licences of dictionaries beside them. */
export function writeNotices(root, dist) {
  mkdirSync(join(dist, 'web'), { recursive: true });
  const text = noticeText(shippedPackages(root));
  writeFileSync(join(dist, 'NOTICE.txt'), text);
  writeFileSync(join(dist, 'web/notices.txt'), text);
  for (const name of ['en', 'en-gb'])
    copyFileSync(join(root, `node_modules/dictionary-${name}/license`), join(dist, `dictionaries/${name}.license`));
}

/** Puts the notices of what a script is made of before it: it goes wherever the script goes. */
export const noticesInScript = () => ({
  name: 'notices-in-script',
  generateBundle(_, bundle) {
    for (const chunk of Object.values(bundle)) {
      if (chunk.type !== 'chunk') continue;
      const dirs = new Set(
        Object.keys(chunk.modules)
          .map((id) => /^(.*\/node_modules\/(?:@[^/]+\/)?[^/]+)\//.exec(id)?.[1])
          .filter(Boolean),
      );
      const packages = [...dirs].map(readPackage).sort((a, b) => a.name.localeCompare(b.name));
      // Neither ends the comment nor the script that it may lie in.
      const text = noticeText(packages).replaceAll('*/', '* /').replaceAll('</', '< /');
      chunk.code = `/*!\n${text}*/\n${chunk.code}`;
    }
  },
});

// As a command: fails if something may not be shipped.
if (process.argv[1]?.endsWith('notices.mjs')) {
  const problems = licenceProblems(shippedPackages(process.cwd()));
  for (const problem of problems) console.error(problem);
  process.exitCode = problems.length > 0 ? 1 : 0;
}
