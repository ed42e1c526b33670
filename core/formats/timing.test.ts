import { describe, expect, it } from '@jest/globals';
import { parseMidi } from 'midi-file';
import Papa from 'papaparse';
import type { SongAnalysis } from '../audio';
import { createMusic, newPhrases } from '../piece';
import type { Piece } from '../piece';
import { FRAME_RATES, freeMoment } from '../time';
import { countingIds, newPiece, steadyAnalysis } from '../../tests/helpers/documents';
import { captionCues } from './caption-cues';
import { exportRefusal, exportWarning } from './export-refusal';
import { writeMarkerCsv } from './marker-csv';
import { TICKS_PER_QUARTER, writeMidiTempo } from './midi-tempo';
import { writeOtio } from './otio';
import { timingSheet } from './timing-sheet';
import { resolveTimes } from '../piece';

const media = { id: 'm', hash: 'a'.repeat(64), kind: 'audio' as const, name: 'Salt and String.wav', duration: 40 };
const analysis: SongAnalysis = {
  ...steadyAnalysis(117.3, 0.41, 70),
  duration: 40,
  sections: [
    { start: 0, end: 8, label: 'intro', energy: 0.2 },
    { start: 8, end: 40, label: 'main', energy: 0.9 },
  ],
};
/** The song begins later, without its first second, and with a stretch cut out. */
const piece: Piece = {
  ...newPiece('Kite Week, "day one"'),
  frameRate: FRAME_RATES['29.97'],
  media: [media],
  music: { ...createMusic(media), start: 0.25, trimStart: 1, cuts: [{ at: 6, to: 12 }] },
  markers: [{ id: 'k', name: '=Boats, all', at: freeMoment(3.5), colour: '#FFB74A' }],
  end: freeMoment(20),
};
const sheet = timingSheet(piece, analysis, null);

describe('times for other programs', () => {
  it('as a tempo map put every beat where it is, by another reader', () => {
    const { header, tracks } = parseMidi(writeMidiTempo(sheet));
    expect(header).toMatchObject({ format: 1, numTracks: 1, ticksPerBeat: TICKS_PER_QUARTER });
    let [tick, seconds, tempo] = [0, 0, 500_000];
    const quarters: number[] = [];
    const marks: { text: string; at: number }[] = [];
    const meters: { quarter: number; beats: number }[] = [];
    for (const event of tracks[0]!) {
      seconds += (event.deltaTime * tempo) / TICKS_PER_QUARTER / 1e6;
      tick += event.deltaTime;
      if (event.type === 'setTempo') {
        tempo = event.microsecondsPerBeat;
        expect(tick % TICKS_PER_QUARTER).toBe(0);
        quarters.push(seconds);
      }
      if (event.type === 'marker') marks.push({ text: event.text, at: seconds });
      if (event.type === 'timeSignature')
        meters.push({ quarter: tick / TICKS_PER_QUARTER, beats: event.numerator / (event.denominator / 4) });
    }
    // What lies before the first beat has a quarter of its own.
    const beats = quarters.slice(quarters.length - sheet.beats.length);
    expect(beats.length).toBeGreaterThan(30);
    for (const [i, { at }] of sheet.beats.entries()) expect(Math.abs(beats[i]! - at)).toBeLessThan(2e-6);
    expect(seconds).toBeCloseTo(sheet.duration, 3);
    // Bars as another program counts them: those after what lies before the first are the music's.
    expect(meters[0]!.quarter).toBe(0);
    const bars: number[] = [];
    for (let quarter = 0; quarter < quarters.length;) {
      bars.push(quarters[quarter]!);
      quarter += meters.findLast((meter) => meter.quarter <= quarter)!.beats;
    }
    const [first] = sheet.bars;
    expect(first!.at).toBeGreaterThan(0.1);
    expect(bars.slice(1)).toEqual(sheet.bars.map(({ at }) => expect.closeTo(at, 4)));
    expect(marks.find(({ text }) => text === '=Boats, all')?.at).toBeCloseTo(3.5, 3);
  });
  it('as a table are read back with every name whole, and start no formula', () => {
    const { data } = Papa.parse<Record<string, string>>(writeMarkerCsv(sheet), { header: true, skipEmptyLines: true });
    const of = (kind: string) => data.filter((line) => line.kind === kind);
    expect(of('beat')).toHaveLength(sheet.beats.length);
    expect(of('bar')).toHaveLength(sheet.bars.length);
    const [marker] = of('marker');
    expect(marker).toMatchObject({ name: "'=Boats, all", frame: String(Math.round((3.5 * 30_000) / 1001)) });
    expect(Number(marker!.seconds)).toBe(3.5);
    const times = data.map((line) => Number(line.seconds));
    expect(times).toEqual([...times].sort((a, b) => a - b));
  });
  it('as a timeline hold the picture, the song as it is cut, and every mark within it', () => {
    interface Clip {
      OTIO_SCHEMA: string;
      source_range: { start_time: { value: number; rate: number }; duration: { value: number; rate: number } };
      media_reference?: { target_url: string; available_range: Clip['source_range'] };
      markers: { name: string; marked_range: Clip['source_range']; metadata: { estrella: { kind: string } } }[];
    }
    const read = JSON.parse(writeOtio(sheet, 'Kite Week.mp4')) as {
      tracks: { children: { kind: string; children: Clip[] }[] };
    };
    const [picture, music] = read.tracks.children;
    const clip = picture!.children[0]!;
    expect(clip.source_range.duration).toMatchObject({ value: 599, rate: 30_000 / 1001 });
    expect(clip.media_reference!.target_url).toBe('Kite%20Week.mp4');
    for (const { marked_range: at } of clip.markers) {
      expect(at.start_time.value).toBeGreaterThanOrEqual(0);
      expect(at.start_time.value + at.duration.value).toBeLessThanOrEqual(599);
    }
    expect(clip.markers.filter((m) => m.metadata.estrella.kind === 'section').map((m) => m.name)).toEqual([
      'Intro',
      'Main',
    ]);
    // Silence, [1, 6) of the song, and what comes after the cut; together as long as the picture.
    const clips = music!.children;
    expect(clips.map((c) => c.OTIO_SCHEMA)).toEqual(['Gap.1', 'Clip.1', 'Clip.1']);
    expect(clips[1]!.source_range.start_time.value / 48_000).toBeCloseTo(1, 4);
    expect(clips[2]!.source_range.start_time.value / 48_000).toBeCloseTo(12, 4);
    const lengthOf = (all: Clip[]) => all.reduce((sum, c) => sum + c.source_range.duration.value, 0) / 48_000;
    expect(lengthOf(clips)).toBeCloseTo((599 * 1001) / 30_000, 4);
    // Also where the song is over before the picture.
    const short = JSON.parse(writeOtio({ ...sheet, music: sheet.music.slice(0, 1) }, null)) as typeof read;
    expect(short.tracks.children[1]!.children.at(-1)!.OTIO_SCHEMA).toBe('Gap.1');
    expect(lengthOf(short.tracks.children[1]!.children)).toBeCloseTo((599 * 1001) / 30_000, 4);
    for (const c of clips.slice(1))
      expect(c.source_range.start_time.value + c.source_range.duration.value).toBeLessThanOrEqual(
        c.media_reference!.available_range.duration.value,
      );
  });
  it('of a part count from its begin', () => {
    const part = timingSheet(piece, analysis, { from: 3, to: 9 });
    expect(part.duration).toBe(6);
    expect(part.markers).toEqual([{ name: '=Boats, all', from: 0.5, to: 6 }]);
    expect(part.beats.every(({ at }) => at >= 0 && at < 6)).toBe(true);
    expect(part.music[0]!.from).toBeCloseTo(3.75, 9);
    expect(part.music[0]!.at).toBe(0);
  });
  it('of a piece without music are still a map, and no captions are no cues', () => {
    const bare = timingSheet({ ...newPiece('Bare'), end: freeMoment(3) }, null, null);
    expect(bare.music).toEqual([]);
    expect(parseMidi(writeMidiTempo(bare)).tracks).toHaveLength(1);
    expect(captionCues(piece, resolveTimes(piece, analysis))).toEqual([]);
  });
  it('phrases are the captions of a piece that has none, each until the next one begins', () => {
    const phrases = newPhrases(['Nine days', 'of wind'], 0, 4, countingIds('p'));
    // Built up: the first stands on the picture to the end of its group.
    const built = phrases.map((layer, i) => (i === 0 ? { ...layer, end: freeMoment(4) } : layer));
    const said: Piece = { ...newPiece('Said'), end: freeMoment(4), layers: built };
    const times = resolveTimes(said, null);
    const cues = captionCues(said, times);
    expect(cues.map(({ text }) => text)).toEqual(['Nine days', 'of wind']);
    expect(cues[0]!.end).toBeCloseTo(cues[1]!.start, 9);
    expect(cues[1]!.end).toBeCloseTo(4, 9);
    expect(exportRefusal('srt', said, times, null)).toBeNull();
  });
});

describe('exports that cannot be made', () => {
  it('a silent sound can be made, but is said to be silent', () => {
    expect(exportWarning('wav', bare)).toMatch(/silent/);
    expect(exportWarning('mp4', bare)).toBeNull();
  });
  const bare = { ...newPiece('Bare'), end: freeMoment(3) };
  const times = resolveTimes(bare, null);
  it.each([
    ['srt', null, /no captions and no phrases/],
    ['vtt', null, /no captions and no phrases/],
    ['wav', null, null],
    ['mp4', { from: 1, to: 1 }, /shorter than a frame/],
    ['mp4', null, null],
    ['png', { from: 1, to: 1 }, null],
    ['midi-tempo', null, null],
  ] as const)('%s of %j', (kind, excerpt, why) => {
    const said = exportRefusal(kind, bare, times, excerpt);
    if (why) expect(said).toMatch(why);
    else expect(said).toBeNull();
  });
});
