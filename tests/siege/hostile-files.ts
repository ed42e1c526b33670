import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strToU8, zipSync } from 'fflate';
import { createLayer } from '@core/piece';
import type { Piece } from '@core/piece';
import { newGestureUse } from '@core/motion';
import { freeMoment } from '@core/time';
import { countingIds, newPiece } from '../helpers/documents';
import { makeFont, toWoff } from '../helpers/make-font';
import type { Random } from '../helpers/random';

/** Files that nobody should send, and that somebody will: damaged, lying, exploding, reaching for others. */
export interface HostileFile {
  readonly name: string;
  readonly bytes: Uint8Array;
  /** Whether it is sent as a piece file rather than as media. */
  readonly isPiece: boolean;
}

const utf8 = strToU8;
const zipped = (piece: unknown, more: Record<string, Uint8Array> = {}) =>
  zipSync({ 'piece.json': utf8(typeof piece === 'string' ? piece : JSON.stringify(piece)), ...more });

/** Good files of every kind, made by ffmpeg and by ourselves. */
export function goodFiles(): { name: string; bytes: Uint8Array }[] {
  const dir = mkdtempSync(join(tmpdir(), 'estrella-hostile-'));
  const make = (name: string, args: string[]) => {
    execFileSync('ffmpeg', ['-v', 'error', '-y', ...args, join(dir, name)]);
    return { name, bytes: new Uint8Array(readFileSync(join(dir, name))) };
  };
  const tone = ['-f', 'lavfi', '-i', 'sine=frequency=330:duration=3'];
  const picture = ['-f', 'lavfi', '-i', 'testsrc=s=48x32:d=0.04', '-frames:v', '1'];
  const font = makeFont({ family: 'Lumo Block', style: 'Regular', weight: 400 });
  try {
    return [
      make('tone.wav', tone),
      make('tone.mp3', tone),
      make('tone.ogg', [...tone, '-c:a', 'libvorbis']),
      make('tone.opus', [...tone, '-c:a', 'libopus']),
      make('tone.flac', tone),
      make('tone.m4a', tone),
      make('tone.aac', tone),
      make('tone.aiff', tone),
      make('picture.png', picture),
      make('picture.jpg', picture),
      make('picture.gif', picture),
      make('picture.webp', picture),
      make('picture.bmp', picture),
      make('picture.tiff', picture),
      { name: 'font.ttf', bytes: font },
      { name: 'font.woff', bytes: toWoff(font) },
      { name: 'piece.estrella', bytes: zipped(newPiece('Good')) },
    ];
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
}

/** One way of damaging a file. */
const DAMAGES: Readonly<Record<string, (bytes: Uint8Array, random: Random) => Uint8Array>> = {
  cut: (b, r) => b.slice(0, r.int(0, b.length)),
  flips: (b, r) => {
    const out = b.slice();
    for (let i = 0; i < 1 + out.length / 200; i++) out[r.int(0, out.length)]! ^= 1 << r.int(0, 8);
    return out;
  },
  header: (b, r) => {
    const out = b.slice();
    for (let i = 0; i < 12; i++) out[r.int(0, Math.min(64, out.length))] = r.int(0, 256);
    return out;
  },
  zeros: (b, r) => {
    const out = b.slice();
    const at = r.int(0, out.length);
    out.fill(0, at, at + r.int(1, 400));
    return out;
  },
  ones: (b, r) => {
    const out = b.slice();
    const at = r.int(4, out.length);
    out.fill(255, at, at + r.int(1, 40));
    return out;
  },
  inserted: (b, r) => {
    const at = r.int(0, b.length);
    const junk = Uint8Array.from({ length: r.int(1, 300) }, () => r.int(0, 256));
    return Uint8Array.from([...b.subarray(0, at), ...junk, ...b.subarray(at)]);
  },
  doubled: (b) => Uint8Array.from([...b, ...b]),
  swapped: (b, r) => {
    const out = b.slice();
    const [x, y] = [r.int(0, out.length), r.int(0, out.length)];
    const part = out.slice(x, x + 100);
    out.set(part.subarray(0, Math.max(0, out.length - y)), y);
    return out;
  },
};

export function damagedFiles(count: number, random: Random): HostileFile[] {
  const good = goodFiles();
  return Array.from({ length: count }, (_, i) => {
    const { name, bytes } = good[i % good.length]!;
    const damage = random.pick(Object.keys(DAMAGES));
    // Some go by the name of another kind.
    const shown = random.unit() < 0.2 ? random.pick(good).name : name;
    return {
      name: `${damage}-${i}-${shown}`,
      bytes: DAMAGES[damage]!(bytes, random),
      isPiece: name.endsWith('.estrella'),
    };
  });
}

const media = (name: string, text: string | Uint8Array): HostileFile => ({
  name,
  bytes: typeof text === 'string' ? utf8(text) : text,
  isPiece: false,
});
const piece = (name: string, bytes: Uint8Array): HostileFile => ({ name, bytes, isPiece: true });

function reaching(): HostileFile[] {
  const playlist = '#EXTM3U\n#EXT-X-TARGETDURATION:10\n#EXTINF:10,\nfile:///etc/passwd\n';
  const names = ['list.png', 'list.jpg', 'list.m3u8', 'list.mp3', 'list.gif'];
  return [
    ...names.map((name) => media(name, `${playlist}#EXT-X-ENDLIST\n`)),
    ...names.map((name) => media(`live-${name}`, playlist)),
    media('concat.png', "ffconcat version 1.0\nfile '/etc/passwd'\n"),
    media('concat.wav', "ffconcat version 1.0\nfile 'pipe:0'\n"),
    media('session.sdp', 'v=0\no=- 0 0 IN IP4 127.0.0.1\ns=x\nc=IN IP4 127.0.0.1\nt=0 0\nm=audio 5004 RTP/AVP 96\n'),
    media(
      'image.svg',
      '<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script><image href="file:///etc/passwd"/></svg>',
    ),
    media(
      'entities.png',
      '<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a SYSTEM "file:///etc/passwd"><!ENTITY b "&a;&a;&a;">]><x>&b;</x>',
    ),
    media('page.html', '<!doctype html><script>fetch("/api/pieces")</script>'),
    media('subtitles.wav', '1\n00:00:00,000 --> 00:00:10,000\nhello\n'),
    media('numbered-%04d.png', 'x'),
    media('http://127.0.0.1:1/x.png', 'x'),
    media('-i', 'x'),
    media('../../etc/passwd', 'x'),
    media('a\0b.png', 'x'),
    media('$&.wav', 'x'),
  ];
}

function lying(): HostileFile[] {
  const png = (width: number, height: number) => {
    const b = new Uint8Array(33);
    b.set([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 13, 0x49, 0x48, 0x44, 0x52]);
    const v = new DataView(b.buffer);
    v.setUint32(16, width);
    v.setUint32(20, height);
    b.set([8, 6, 0, 0, 0], 24);
    return b;
  };
  const wav = (bytes: number) => {
    const b = new Uint8Array(60);
    b.set(utf8('RIFF'));
    b.set(utf8('WAVEfmt '), 8);
    const v = new DataView(b.buffer);
    v.setUint32(4, bytes, true);
    v.setUint32(16, 16, true);
    v.setUint16(20, 1, true);
    v.setUint16(22, 2, true);
    v.setUint32(24, 44100, true);
    v.setUint32(28, 176400, true);
    v.setUint16(32, 4, true);
    v.setUint16(34, 16, true);
    b.set(utf8('data'), 36);
    v.setUint32(40, bytes, true);
    return b;
  };
  const woff = (count: number, length: number) => {
    const b = new Uint8Array(44 + count * 20);
    b.set(utf8('wOFF'));
    const v = new DataView(b.buffer);
    v.setUint16(12, count);
    v.setUint32(16, length);
    for (let i = 0; i < count; i++) {
      v.setUint32(44 + i * 20 + 4, 44);
      v.setUint32(44 + i * 20 + 8, 10);
      v.setUint32(44 + i * 20 + 12, length);
    }
    return b;
  };
  return [
    media('huge.png', png(60_000, 60_000)),
    media('wide.png', png(0x7fffffff, 1)),
    media('none.png', png(0, 0)),
    media('endless.wav', wav(0xffffffff)),
    media('short.wav', wav(16)),
    media('odd.wav', wav(13)),
    media('many.woff', woff(2000, 30_000)),
    media('large.woff', woff(1, 0xf0000000)),
    media('empty.woff', woff(0, 0)),
    media(
      'deep.woff2',
      Uint8Array.from({ length: 3000 }, (_, i) => [0x77, 0x4f, 0x46, 0x32][i] ?? (i * 31) % 256),
    ),
    media('nothing.wav', ''),
    media('one.png', 'x'),
    media('spaces.mp3', ' '.repeat(100_000)),
    media('zeros.flac', new Uint8Array(100_000)),
  ];
}

function exploding(): HostileFile[] {
  const base = newPiece('Bomb');
  const hash = 'a'.repeat(64);
  const ids = countingIds('h');
  const withMedia = { ...base, media: [{ id: 'm', hash, kind: 'picture', name: 'bomb.png' }] };
  const text = (i: number) => ({
    ...createLayer(
      'text',
      {
        name: `T${i}`,
        start: freeMoment(0),
        end: freeMoment(60),
        content: { text: 'nine days of wind over the harbour '.repeat(30), family: 'syne' },
      },
      ids,
    ),
    motionBlur: 'on' as const,
    gestures: Array.from({ length: 24 }, (_, k) => ({
      ...newGestureUse('tremor', 'accent', `g${k}`),
      every: 1 / 8,
      unit: 'letter' as const,
    })),
  });
  const heavy: Piece = {
    ...base,
    end: freeMoment(60),
    shutter: 360,
    layers: Array.from({ length: 20 }, (_, i) => text(i)),
  };
  const keys = Array.from({ length: 200_000 }, (_, i) => ({
    id: `k${i}`,
    at: freeMoment(i / 1000),
    value: 1,
    easing: { type: 'linear' },
  }));
  const flag = createLayer('ellipse', { name: 'E', start: freeMoment(0), end: freeMoment(9) }, ids);
  return [
    piece(
      'zeros.estrella',
      zipSync(
        { 'piece.json': utf8(JSON.stringify(withMedia)), [`media/${hash}`]: new Uint8Array(300_000_000) },
        { level: 9 },
      ),
    ),
    piece('document.estrella', zipSync({ 'piece.json': new Uint8Array(200_000_000).fill(32) }, { level: 9 })),
    piece('deep.estrella', zipped(`${'{"a":'.repeat(100_000)}1${'}'.repeat(100_000)}`)),
    piece('nested.estrella', zipped(`[${'['.repeat(200_000)}`)),
    piece(
      'keyframes.estrella',
      zipped({ ...base, layers: [{ ...flag, tracks: { ...flag.tracks, opacity: { value: 1, keyframes: keys } } }] }),
    ),
    piece('heavy.estrella', zipped(heavy)),
    piece(
      'layers.estrella',
      zipped({ ...base, layers: Array.from({ length: 30_000 }, (_, i) => ({ ...flag, id: `l${i}` })) }),
    ),
    piece('for-ever.estrella', zipped({ ...base, end: freeMoment(1e308) })),
    piece('years.estrella', zipped({ ...base, end: freeMoment(30_000) })),
    piece('fast.estrella', zipped({ ...base, frameRate: { num: 1e9, den: 1 } })),
    piece('slow.estrella', zipped({ ...base, frameRate: { num: 1, den: 1e9 } })),
    piece('far.estrella', zipped({ ...base, tempo: { bpm: 400, beatsPerBar: 1, firstDownbeat: -1e300 } })),
    piece(
      'entries.estrella',
      zipSync({
        ...Object.fromEntries(
          Array.from({ length: 5000 }, (_, i) => [`media/${String(i).padStart(64, '0')}`, utf8('x')]),
        ),
        'piece.json': utf8(JSON.stringify(base)),
      }),
    ),
    piece(
      'outside.estrella',
      zipped(base, { '../../evil': utf8('x'), '/etc/evil': utf8('x'), 'media/../../../evil': utf8('x') }),
    ),
    piece(
      'analysis.estrella',
      zipped(
        { ...base, media: [{ id: 'm', hash, kind: 'audio', name: 'x.wav' }] },
        { [`analysis/${hash}.json`]: utf8(`{"beats":[${'1e308,'.repeat(1000)}1]}`), [`media/${hash}`]: utf8('x') },
      ),
    ),
    piece(
      'proto.estrella',
      zipped(
        JSON.stringify(base).replace(
          '"layers":[]',
          '"layers":[],"__proto__":{"polluted":true},"constructor":{"prototype":{"polluted":true}}',
        ),
      ),
    ),
    piece(
      'names.estrella',
      zipped({ ...base, formats: [{ id: '__proto__', name: 'x', width: 64, height: 64 }], leadFormatId: '__proto__' }),
    ),
    piece('control.estrella', zipped({ ...base, name: 'a\0b\ud83c' })),
    piece('comment.estrella', Uint8Array.from([...zipped(base), ...new Uint8Array(70_000)])),
    piece('huge-sides.estrella', zipped({ ...base, formats: [{ id: 'wide', name: 'x', width: 1e9, height: 1e9 }] })),
  ];
}

/** Files made on purpose, each for one weakness. */
export const craftedFiles = (): HostileFile[] => [...reaching(), ...lying(), ...exploding()];

export function writeFilm(file: string): void {
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-y',
    '-f',
    'lavfi',
    '-i',
    'testsrc=s=64x48:d=1',
    '-pix_fmt',
    'yuv420p',
    file,
  ]);
}
/** A playlist that goes by the name of a picture and points at a film of this machine. */
export function playlistOf(film: string, target: string): HostileFile {
  const text = `#EXTM3U\n#EXT-X-TARGETDURATION:10\n#EXTINF:10,\n${film}\n#EXT-X-ENDLIST\n`;
  writeFileSync(target, text);
  return media('holiday.png', text);
}
