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
    expect(result.lines[0]).toContain('Estrella project');
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

  it('explains each command, and says what exit codes mean', () => {
    const all = run('--help');
    expect(all.status).toBe(0);
    for (const command of ['beats', 'render', 'frame', 'check', 'captions', 'templates', 'roster', 'svg', 'convert']) {
      expect(all.stdout).toContain(`  ${command} `);
      expect(run(command, '--help')).toMatchObject({ status: 0, stdout: expect.stringContaining('Exit codes') });
    }
  });

  it('lists the kinds of files and the templates', () => {
    const { kinds } = JSON.parse(run('render', '--kind', '--json').stdout) as { kinds: { id: string }[] };
    expect(kinds.map(({ id }) => id)).toEqual(expect.arrayContaining(['mp4', 'gif', 'prores-alpha', 'otio']));
    expect(run('render', '--kind').stdout).toMatch(/^mp4 +MP4 video/);
    const { templates } = JSON.parse(run('templates', '--json').stdout) as { templates: { slots: unknown[] }[] };
    expect(templates).toHaveLength(36);
    expect(templates.every(({ slots }) => slots.length > 0)).toBe(true);
  });

  it('exports a file for each row of a table, and names a row that can’t be', () => {
    const table = join(dir, 'people.csv');
    writeFileSync(table, 'Name,Role\nInés Vardal,Kite maker\nTeo Marsh,Wind reader\n');
    const out = join(dir, 'rows');
    const result = run('roster', table, '--template', 'quayside', '--kind', 'png', '--out', out, '--json');
    expect(result.lines).toEqual(['exporting rows: 50 %', 'exporting rows: 100 %']);
    const { rows } = JSON.parse(result.stdout) as { rows: { row: number; file: string }[] };
    expect(rows.map(({ file }) => file)).toEqual([join(out, '1 Inés Vardal.png'), join(out, '2 Teo Marsh.png')]);
    const [one, two] = rows.map(({ file }) => readFileSync(file));
    expect(one!.equals(two!)).toBe(false);
    expect(run('roster', table, '--template', 'nobody', '--out', out).status).toBe(2);
    expect(run('roster', join(dir, 'none.csv'), '--template', 'quayside', '--out', out).status).toBe(1);
  });

  it('makes a project of an SVG file, says what is missing, and saves it as the present version', () => {
    const drawing = join(dir, 'sign.svg');
    writeFileSync(
      drawing,
      '<svg xmlns="http://www.w3.org/2000/svg" width="90" height="60"><rect width="90" height="60" fill="#143749"/><image href="x.png" width="9" height="9"/></svg>',
    );
    const piece = join(dir, 'sign.estrella');
    const facts = JSON.parse(run('svg', drawing, '--out', piece, '--json').stdout) as Record<string, unknown>;
    expect(facts).toMatchObject({ name: 'sign', layers: 2, missing: ['embedded pictures'] });
    const again = join(dir, 'again.estrella');
    expect(run('convert', piece, '--out', again)).toMatchObject({ status: 0, lines: [] });
    expect(JSON.parse(run('check', again, '--json').stdout)).toHaveProperty('findings');
    const frame = join(dir, 'sign.png');
    expect(run('frame', again, '--at', '1', '--out', frame).status).toBe(0);
    expect(run('captions', again, '--out', join(dir, 'sign.txt')).status).toBe(2);
    expect(run('captions', again, '--out', join(dir, 'sign.srt'))).toMatchObject({ status: 1 });
  });
});
