import { readFileSync, readdirSync } from 'node:fs';
import { describe, expect, it } from '@jest/globals';
import { HELP_PAGES, HELP_PAGE_IDS, helpOf } from './help-pages';

const textOf = (id: string): string => readFileSync(`docs/guide/${id}.md`, 'utf8');

describe('the guide', () => {
  it('has a file for each page and a page for each file, under the same title', () => {
    const files = readdirSync('docs/guide').map((name) => name.replace(/\.md$/, ''));
    expect(files.toSorted()).toEqual([...HELP_PAGE_IDS].toSorted());
    expect(HELP_PAGE_IDS.map((id) => textOf(id).split('\n')[0])).toEqual(
      HELP_PAGE_IDS.map((id) => `# ${HELP_PAGES[id]}`),
    );
  });
  it('opens at the panel, or at the tab it shows', () => {
    expect(helpOf('music', undefined)).toBe('music');
    expect(helpOf('music', 'song')).toBe('cut-song');
    expect(helpOf('send', 'song')).toBe('export');
  });
});
