import { readFileSync, readdirSync } from 'node:fs';
import { dirname, join, normalize } from 'node:path';
import { describe, expect, it } from '@jest/globals';

/** Core folders from left to right: each imports only from its left. */
const ORDER = [
  'time',
  'audio',
  'colour',
  'text',
  'motion',
  'geometry',
  'framing',
  'piece',
  'scene',
  'paint',
  'checks',
  'adapt',
  'formats',
  'svg',
  'lottie',
  'templates',
  'roster',
];
const CORE_PACKAGES = [
  'zod',
  'immer',
  'culori/fn',
  'linebreak',
  'bidi-js',
  'fft.js',
  'fflate',
  '@rgrove/parse-xml',
  'css-tree',
  'css-tree/parser',
  'css-tree/generator',
  'svgpath',
  'papaparse',
];

const files = (dir: string): string[] =>
  readdirSync(dir, { withFileTypes: true }).flatMap((e) =>
    e.isDirectory()
      ? ['node_modules', 'asm'].includes(e.name)
        ? []
        : files(join(dir, e.name))
      : /\.tsx?$/.test(e.name) && !/\.test\.ts$|\.d\.ts$/.test(e.name)
        ? [join(dir, e.name)]
        : [],
  );
const importsOf = (file: string) =>
  [...readFileSync(file, 'utf8').matchAll(/^(?:import|export)\s+(type\s+)?[^;]*?from\s+'([^']+)'/gms)].map((m) => ({
    isType: m[1] !== undefined,
    from: m[2]!,
  }));

describe('the parts', () => {
  it('core imports only its allowed packages and only folders to its left', () => {
    const wrong: string[] = [];
    for (const file of files('core')) {
      const own = file.split('/')[1]!;
      for (const { from } of importsOf(file)) {
        if (!from.startsWith('.')) {
          if (!CORE_PACKAGES.includes(from)) wrong.push(`${file}: ${from}`);
          continue;
        }
        const target = normalize(join(dirname(file), from)).split('/');
        if (target[0] !== 'core') wrong.push(`${file}: ${from}`);
        else if (target[1] !== own && (ORDER.indexOf(target[1]!) >= ORDER.indexOf(own) || target.length > 2))
          wrong.push(`${file}: ${from}`);
      }
    }
    expect(wrong).toEqual([]);
  });
  it('web takes nothing but types from the server, and nobody reaches into a core folder', () => {
    const wrong: string[] = [];
    for (const file of [...files('web/src'), ...files('server'), ...files('demo')]) {
      for (const { from, isType } of importsOf(file)) {
        if (file.startsWith('web') && from.includes('/server/') && !isType) wrong.push(`${file}: ${from}`);
        if (/^@core\/[^/]+\/./.test(from)) wrong.push(`${file}: ${from}`);
      }
    }
    expect(wrong).toEqual([]);
  });
  it('there are no cycles of value imports', () => {
    const graph = new Map<string, string[]>();
    const all = [...files('core'), ...files('server'), ...files('web/src'), ...files('demo')];
    const resolve = (file: string, from: string) => {
      const base = from.startsWith('@core/') ? join('core', from.slice(6)) : normalize(join(dirname(file), from));
      return [base, `${base}.ts`, `${base}.tsx`, join(base, 'index.ts')].find((p) => all.includes(p));
    };
    for (const file of all)
      graph.set(
        file,
        importsOf(file)
          .filter((i) => !i.isType)
          .map((i) => resolve(file, i.from))
          .filter((f) => f !== undefined),
      );
    const state = new Map<string, 'open' | 'done'>();
    const cycles: string[] = [];
    const visit = (file: string, path: string[]) => {
      if (state.get(file) === 'done') return;
      if (state.get(file) === 'open') return void cycles.push([...path.slice(path.indexOf(file)), file].join(' → '));
      state.set(file, 'open');
      for (const next of graph.get(file) ?? []) visit(next, [...path, file]);
      state.set(file, 'done');
    };
    for (const file of all) visit(file, []);
    expect(cycles).toEqual([]);
  });
});
