import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from '@jest/globals';
import { demoDir } from '../helpers/demo-files';

const dir = mkdtempSync(join(tmpdir(), 'estrella-cli-'));
const run = (...args: string[]) => {
  const { status, stdout, stderr } = spawnSync('./estrella', args, { encoding: 'utf8' });
  return {
    status,
    stdout,
    lines: stderr
      .trim()
      .split('\n')
      .filter((l) => l !== ''),
  };
};

describe('the command line', () => {
  it.each([
    ['nothing', []],
    ['an unknown command', ['dance', 'x.wav']],
    ['an unknown option', ['beats', 'x.wav', '--loud']],
    ['no file', ['beats']],
    ['no output', ['render', 'x.estrella']],
    ['no time', ['frame', 'x.estrella', '--out', 'y.png']],
    ['a time that is none', ['frame', 'x.estrella', '--at', 'noon', '--out', 'y.png']],
  ])('exits 2 with one clear line for %s', (_title, args) => {
    const result = run(...args);
    expect(result.status).toBe(2);
    expect(result.lines).toHaveLength(1);
    expect(result.lines[0]).toMatch(/^estrella: /);
  });

  it('exits 1 for files it cannot use, and leaves no output', () => {
    writeFileSync(join(dir, 'words.wav'), 'words');
    writeFileSync(join(dir, 'words.estrella'), 'words');
    expect(run('beats', join(dir, 'words.wav'))).toMatchObject({ status: 1 });
    expect(run('beats', join(dir, 'absent.wav'))).toMatchObject({ status: 1 });
    const out = join(dir, 'never.mp4');
    const result = run('render', join(dir, 'words.estrella'), '--out', out);
    expect(result).toMatchObject({ status: 1 });
    expect(result.lines[0]).toContain('piece file');
    expect(existsSync(out) || existsSync(`${out}.part`)).toBe(false);
  });

  it('prints the beats of a song in any common format as JSON', () => {
    const wav = join(demoDir(), 'salt-and-string.wav');
    for (const [extension, codec] of [
      ['wav', []],
      ['mp3', ['-c:a', 'libmp3lame']],
      ['ogg', ['-c:a', 'libvorbis']],
      ['opus', ['-c:a', 'libopus']],
      ['flac', ['-c:a', 'flac']],
      ['m4a', ['-c:a', 'aac']],
    ] as const) {
      const file = join(dir, `song.${extension}`);
      execFileSync('ffmpeg', ['-v', 'error', '-y', '-i', wav, ...codec, file]);
      const result = run('beats', file, '--json');
      expect({ extension, status: result.status }).toEqual({ extension, status: 0 });
      const out = JSON.parse(result.stdout) as { bpm: number; beats: number[]; downbeats: number[] };
      expect(out.bpm / 118).toBeCloseTo(1, 2);
      expect(Math.abs(out.beats[4]! - out.downbeats[1]!)).toBeLessThan(1e-9);
      expect(Math.abs(out.downbeats[1]! - (0.2 + (4 * 60) / 118))).toBeLessThan(0.02);
    }
  });

  it.each(['demo-nine-days', 'demo-kite-maker', 'demo-kite-week'])(
    'finds nothing to look at in %s, from which people learn',
    (name) => {
      const result = run('check', join(demoDir(), `${name}.estrella`), '--json');
      expect(result.status).toBe(0);
      expect(JSON.parse(result.stdout)).toEqual({ findings: [] });
    },
  );

  it('writes a frame, and refuses one behind the end', () => {
    const piece = join(demoDir(), 'demo-kite-maker.estrella');
    const out = join(dir, 'frame.png');
    expect(run('frame', piece, '--at', '12', '--format', 'square', '--out', out)).toMatchObject({
      status: 0,
      lines: [],
    });
    const facts = execFileSync('ffprobe', [
      '-v',
      'error',
      '-show_entries',
      'stream=width,height',
      '-of',
      'csv=p=0',
      out,
    ])
      .toString()
      .trim();
    expect(facts).toBe('1080,1080');
    const several = join(dir, 'several.png');
    expect(run('frame', piece, '--at', '3,12', '--format', 'square', '--out', several).status).toBe(0);
    expect(existsSync(several)).toBe(false);
    expect(readFileSync(join(dir, 'several-2.png'))).toEqual(readFileSync(out));
    expect(readFileSync(join(dir, 'several-1.png'))).not.toEqual(readFileSync(out));
    expect(run('frame', piece, '--at', '999', '--out', out).status).toBe(2);
    expect(run('frame', piece, '--at', '1', '--format', 'round', '--out', out).status).toBe(2);
  });
});
