import type { Seconds } from '../time';

/**
 * Captions in and out. SubRip (.srt) has no standard; what is read is what its many writers agree on: a number, a line
 * of two times parted by `-->`, lines of text, an empty line. WebVTT is W3C's (https://www.w3.org/TR/webvtt1/, sections
 * 4 and 6).
 */
export interface Cue {
  readonly start: Seconds;
  readonly end: Seconds;
  /** Lines parted by a line feed; without markup. */
  readonly text: string;
}

export type SubtitleProblem = { readonly code: 'NO_CUES' | 'TOO_MANY'; readonly detail: string };
export interface ReadCues {
  readonly cues: readonly Cue[];
  /** Blocks that could not be read, by the line they begin on, counted from 1. */
  readonly skipped: readonly number[];
}

export const MAX_CUES = 1500;
const TIMES =
  /^\s*(?:(\d{1,3}):)?(\d{1,2}):(\d{1,2})[.,](\d{1,3})\s*-->\s*(?:(\d{1,3}):)?(\d{1,2}):(\d{1,2})[.,](\d{1,3})/;

const seconds = (h: string | undefined, m: string, s: string, fraction: string): Seconds =>
  Number(h ?? 0) * 3600 + Number(m) * 60 + Number(s) + Number(fraction.padEnd(3, '0')) / 1000;

/** Text of a cue without tags (`<i>`, `<v Inés>`, `{\an8}`), its character references resolved. */
const plain = (text: string): string =>
  text
    .replace(/<[^>]*>/g, '')
    .replace(/\{\\[^}]*\}/g, '')
    .replace(
      /&(amp|lt|gt|nbsp|lrm|rlm);/g,
      (_, name: string) => ({ amp: '&', lt: '<', gt: '>', nbsp: '\u00a0', lrm: '\u200e', rlm: '\u200f' })[name] ?? '',
    )
    .trim();

/**
 * Reads either format; WebVTT is known by its first line. Cues are given in order of time; empty ones and such as end
 * before they begin are skipped.
 */
export function readSubtitles(source: string): { ok: true; read: ReadCues } | { ok: false; problem: SubtitleProblem } {
  const lines = source
    .replace(/^\ufeff/, '')
    .replace(/\r\n?/g, '\n')
    .split('\n');
  const isVtt = /^WEBVTT(?:\s|$)/.test(lines[0] ?? '');
  const cues: Cue[] = [];
  const skipped: number[] = [];
  let i = isVtt ? 1 : 0;
  while (i < lines.length) {
    if (lines[i]!.trim() === '') {
      i++;
      continue;
    }
    const begin = i;
    const block: string[] = [];
    while (i < lines.length && lines[i]!.trim() !== '') block.push(lines[i++]!);
    if (isVtt && /^(NOTE|STYLE|REGION)(\s|$)/.test(block[0]!)) continue;
    const at = block.findIndex((line) => TIMES.test(line));
    // A header of WebVTT may have lines of its own before the first cue.
    if (at < 0 && isVtt && cues.length === 0 && begin <= 1) continue;
    const match = at >= 0 ? TIMES.exec(block[at]!) : null;
    const text = at >= 0 ? plain(block.slice(at + 1).join('\n')) : '';
    if (!match || text === '') {
      skipped.push(begin + 1);
      continue;
    }
    const start = seconds(match[1], match[2]!, match[3]!, match[4]!);
    const end = seconds(match[5], match[6]!, match[7]!, match[8]!);
    if (end <= start) {
      skipped.push(begin + 1);
      continue;
    }
    cues.push({ start, end, text });
    if (cues.length > MAX_CUES) return { ok: false, problem: { code: 'TOO_MANY', detail: `more than ${MAX_CUES}` } };
  }
  if (cues.length === 0)
    return { ok: false, problem: { code: 'NO_CUES', detail: `${lines.length} lines without a time` } };
  return { ok: true, read: { cues: cues.sort((a, b) => a.start - b.start || a.end - b.end), skipped } };
}

function clock(time: Seconds, mark: ',' | '.'): string {
  const ms = Math.round(Math.max(0, time) * 1000);
  const two = (n: number) => String(n).padStart(2, '0');
  return `${two(Math.floor(ms / 3_600_000))}:${two(Math.floor(ms / 60_000) % 60)}:${two(Math.floor(ms / 1000) % 60)}${mark}${String(ms % 1000).padStart(3, '0')}`;
}

/** An empty line would end the cue. */
const lineText = (text: string): string =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .join('\n');

export const writeSrt = (cues: readonly Cue[]): string =>
  cues
    .map((cue, i) => `${i + 1}\n${clock(cue.start, ',')} --> ${clock(cue.end, ',')}\n${lineText(cue.text)}\n`)
    .join('\n');

export const writeVtt = (cues: readonly Cue[]): string =>
  `WEBVTT\n\n${cues.map((cue) => `${clock(cue.start, '.')} --> ${clock(cue.end, '.')}\n${lineText(cue.text).replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;')}\n`).join('\n')}`;
