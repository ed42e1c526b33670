import { rm, writeFile } from 'node:fs/promises';
import type { NamedExcerpt } from '@core/piece';
import { encodeFile } from './encode-file';
import type { VideoPart } from './video-parts';
import type { FrameRate } from '@core/time';

/** Signs that mean something in ffmpeg's file of metadata get a stroke before them. */
const escaped = (text: string): string => text.replace(/[=;#\\\n]/g, (sign) => `\\${sign}`);

/** Chapters as ffmpeg reads them, in milliseconds. */
export function chaptersFile(chapters: readonly NamedExcerpt[]): string {
  const ms = (seconds: number): number => Math.round(seconds * 1000);
  return [
    ';FFMETADATA1',
    ...chapters.flatMap(({ from, to, name }) => [
      ...['[CHAPTER]', 'TIMEBASE=1/1000', `START=${ms(from)}`, `END=${ms(to)}`],
      `title=${escaped(name)}`,
    ]),
    '',
  ].join('\n');
}

export interface Joined {
  /** The files of the parts, in order, and what they hold. */
  readonly files: readonly string[];
  readonly parts: readonly VideoPart[];
  readonly rate: FrameRate;
  /** The file of the encoded sound. */
  readonly sound: string | null;
  readonly chapters: readonly NamedExcerpt[];
  readonly container: readonly string[];
  readonly out: string;
  readonly signal?: AbortSignal | undefined;
}

/** Puts parts one after another and the sound beside them, as they are: nothing is encoded again. */
export async function joinParts(j: Joined): Promise<void> {
  const [list, chapters] = [`${j.out}.list`, `${j.out}.chapters`];
  const lines = j.files.flatMap((file, i) => {
    const { first, end } = j.parts[i]!;
    // To the millionth, which is finer than any tick that is rounded to.
    const seconds = (((end - first) * j.rate.den) / j.rate.num).toFixed(6);
    return [`file 'file:${file.replace(/'/g, `'\\''`)}'`, `duration ${seconds}`];
  });
  try {
    await writeFile(list, ['ffconcat version 1.0', ...lines, ''].join('\n'));
    await writeFile(chapters, chaptersFile(j.chapters));
    const hasChapters = j.chapters.length > 0;
    await encodeFile(
      [
        ...['-f', 'concat', '-safe', '0', '-i', `file:${list}`],
        ...(j.sound ? ['-i', `file:${j.sound}`] : []),
        ...(hasChapters ? ['-f', 'ffmetadata', '-i', `file:${chapters}`] : []),
        ...['-map', '0:v', ...(j.sound ? ['-map', '1:a'] : [])],
        ...['-map_chapters', hasChapters ? String(j.sound ? 2 : 1) : '-1'],
        ...['-c', 'copy', ...j.container],
      ],
      j.out,
      j.signal,
    );
  } finally {
    for (const file of [list, chapters]) await rm(file, { force: true });
  }
}
