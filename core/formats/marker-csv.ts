import { frameToTimecode, nearestFrame } from '../time';
import type { Seconds } from '../time';
import type { TimingSheet } from './timing-sheet';

/** A cell after RFC 4180; one that a spreadsheet would take for a formula is given as the text it is. */
function cell(text: string): string {
  const safe = /^[=+\-@\t\r]/.test(text) ? `'${text}` : text;
  return /[",\r\n]/.test(safe) ? `"${safe.replace(/"/g, '""')}"` : safe;
}

/** Every bar, beat, section and marker, a row each in order of time (RFC 4180, UTF-8). */
export function writeMarkerCsv({ beats, bars, sections, markers, frameRate }: TimingSheet): string {
  const rows: { at: Seconds; kind: string; name: string; length: Seconds | null }[] = [
    ...sections.map(({ name, from, to }) => ({ at: from, kind: 'section', name, length: to - from })),
    ...markers.map(({ name, from }) => ({ at: from, kind: 'marker', name, length: null })),
    ...bars.map(({ at, bar }) => ({ at, kind: 'bar', name: String(bar), length: null })),
    ...beats.map(({ at, bar, beat }) => ({ at, kind: 'beat', name: `${bar}.${beat}`, length: null })),
  ];
  rows.sort((a, b) => a.at - b.at); // stable: what is larger comes first
  const lines = rows.map(({ at, kind, name, length }) => {
    const frame = nearestFrame(at, frameRate);
    return [
      at.toFixed(6),
      frameToTimecode(frame, frameRate),
      String(frame),
      kind,
      cell(name),
      length?.toFixed(6) ?? '',
    ];
  });
  return [['seconds', 'timecode', 'frame', 'kind', 'name', 'length'], ...lines]
    .map((line) => `${line.join(',')}\r\n`)
    .join('');
}
