import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from '@jest/globals';

describe('what is shipped may be passed on', () => {
  it('every package, font and dictionary has a licence that allows it', () => {
    expect(execFileSync(process.execPath, ['scripts/notices.mjs'], { encoding: 'utf8' })).toBe('');
  });
  it('its notices are in one file, and at the head of the script that goes into pages', () => {
    const notices = readFileSync('dist/NOTICE.txt', 'utf8');
    for (const name of ['react ', 'zod ', '@fontsource-variable/rubik ', 'twemoji-colr-font ', 'dictionary-en '])
      expect(notices).toContain(`\n${name}`);
    const player = readFileSync('dist/page/player.js', 'utf8');
    const head = player.slice(0, player.indexOf('*/'));
    for (const name of ['bidi-js', 'harfbuzzjs', 'linebreak', 'pathkit-wasm', 'zod'])
      expect(head).toContain(`\n${name} `);
    expect(head).not.toContain('</');
  });
  it('a licence lies beside each font and each dictionary', () => {
    for (const entry of readdirSync('dist/fonts', { withFileTypes: true }))
      if (entry.isDirectory()) expect(existsSync(join('dist/fonts', entry.name, 'LICENSE.txt'))).toBe(true);
    for (const name of ['en', 'en-gb']) expect(existsSync(`dist/dictionaries/${name}.license`)).toBe(true);
  });
});
