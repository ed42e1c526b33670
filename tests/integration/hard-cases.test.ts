import { execFileSync } from 'node:child_process';
import { describe, expect, it } from '@jest/globals';

/** The built program runs them: synthesis and search are many times slower inside the test runner's own context. */
describe('beats of music that is hard to follow', () => {
  const names = ['swing', '3/4', '6/8', 'ritardando', 'jump', 'no drums', 'off-beat bass', 'vibrato'];
  const rows = execFileSync(process.execPath, ['dist/server/hard-cases.js', ...names], { encoding: 'utf8' })
    .split('\n')
    .filter((line) => /^\| [^|]+ \| [01]\./.test(line))
    .map((line) => line.split('|').map((cell) => cell.trim()));
  it('all are looked at', () => {
    expect(rows.filter((r) => r[1] !== 'mean')).toHaveLength(names.length);
  });
  it.each(rows.filter((r) => r[1] !== 'mean').map((r) => [r[1]!, r] as const))(
    '%s: beats and bars are found',
    (name, row) => {
      expect(Number(row[2])).toBeGreaterThan(0.95);
      // Two short bars may be counted as one: then every second of their downbeats is found.
      expect(Number(row[3])).toBeGreaterThan(name.startsWith('6/8') ? 0.66 : 0.9);
      expect(Math.abs(Number(row[4]))).toBeLessThan(8);
    },
  );
});
