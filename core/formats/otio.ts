import { framesPerSecond, nearestFrame } from '../time';
import type { Seconds } from '../time';
import type { NamedExcerpt } from '../piece';
import type { TimingSheet } from './timing-sheet';

/**
 * A timeline for other editing programs: OpenTimelineIO's JSON (https://opentimelineio.readthedocs.io, "File format
 * specification"; Timeline.1, Stack.1, Track.1, Clip.1, Gap.1, Marker.2). The picture is one clip, the rendered file; the
 * song lies under it as it is cut; sections, markers and bars are markers of the picture.
 */

/** Samples a second that times of the song are given in: cuts lie between frames. */
const SOUND_RATE = 48_000;

const time = (value: number, rate: number) => ({ OTIO_SCHEMA: 'RationalTime.1', value, rate });
const range = (start: number, length: number, rate: number) => ({
  OTIO_SCHEMA: 'TimeRange.1',
  start_time: time(start, rate),
  duration: time(length, rate),
});
const reference = (file: string | null, length: number, rate: number) =>
  file === null
    ? { OTIO_SCHEMA: 'MissingReference.1', name: '', metadata: {}, available_range: null }
    : {
        OTIO_SCHEMA: 'ExternalReference.1',
        name: file,
        metadata: {},
        target_url: encodeURIComponent(file),
        available_range: range(0, length, rate),
      };
const item = (schema: string, name: string) => ({
  OTIO_SCHEMA: schema,
  name,
  metadata: {},
  effects: [] as unknown[],
  markers: [] as unknown[],
});
const track = (name: string, kind: 'Video' | 'Audio', children: readonly unknown[]) => ({
  ...item('Track.1', name),
  source_range: null,
  kind,
  children,
});

const COLOURS = { section: 'CYAN', marker: 'YELLOW', bar: 'WHITE' } as const;

/** @param picture - name of the rendered file that it goes with; null for none. */
export function writeOtio(sheet: TimingSheet, picture: string | null): string {
  const rate = framesPerSecond(sheet.frameRate);
  const frames = nearestFrame(sheet.duration, sheet.frameRate);
  const frameOf = (seconds: Seconds): number => nearestFrame(seconds, sheet.frameRate);
  const samples = (seconds: Seconds): number => Math.round(seconds * SOUND_RATE);
  const marker = (kind: keyof typeof COLOURS, { name, from, to }: NamedExcerpt) => ({
    OTIO_SCHEMA: 'Marker.2',
    name,
    metadata: { estrella: { kind } },
    color: COLOURS[kind],
    marked_range: range(frameOf(from), kind === 'section' ? frameOf(to) - frameOf(from) : 0, rate),
  });
  const music: unknown[] = [];
  // The sound is as long as the picture, which is whole frames.
  const whole = samples(frames / rate);
  const gap = (length: number) => ({ ...item('Gap.1', ''), source_range: range(0, length, SOUND_RATE) });
  let at = 0;
  for (const part of sheet.music) {
    const begin = samples(part.at);
    const length = Math.min(samples(part.at + part.to - part.from), whole) - begin;
    if (length <= 0) continue;
    if (begin > at) music.push(gap(begin - at));
    music.push({
      ...item('Clip.1', sheet.song ?? ''),
      source_range: range(samples(part.from), length, SOUND_RATE),
      media_reference: reference(sheet.song, samples(sheet.songDuration), SOUND_RATE),
    });
    at = begin + length;
  }
  if (music.length > 0 && at < whole) music.push(gap(whole - at));
  const clip = {
    ...item('Clip.1', sheet.name),
    source_range: range(0, frames, rate),
    media_reference: reference(picture, frames, rate),
    markers: [
      ...sheet.sections.map((one) => marker('section', one)),
      ...sheet.markers.map((one) => marker('marker', one)),
      ...sheet.bars.map(({ at: begin, bar }) => marker('bar', { name: `Bar ${bar}`, from: begin, to: begin })),
    ],
  };
  const timeline = {
    OTIO_SCHEMA: 'Timeline.1',
    name: sheet.name,
    metadata: {},
    global_start_time: null,
    tracks: {
      ...item('Stack.1', 'tracks'),
      source_range: null,
      children: [track('Picture', 'Video', [clip]), ...(music.length > 0 ? [track('Music', 'Audio', music)] : [])],
    },
  };
  return `${JSON.stringify(timeline, null, 2)}\n`;
}
