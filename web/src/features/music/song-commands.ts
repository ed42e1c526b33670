import { bestJoin, fitToBars } from '@core/audio';
import type { SongAnalysis } from '@core/audio';
import {
  musicSpan,
  pieceToSong,
  songToPiece,
  songToPieceAll,
  splitParts,
  withRepeat,
  withoutStretch,
} from '@core/piece';
import type { Music, Stretch } from '@core/piece';
import { beatToSeconds, secondsToBeat } from '@core/time';
import { playhead } from '../../platform/clock';
import { edit, setView, useDesk } from '../../store/desk-store';
import { loadedSound } from '../desk/play-commands';
import { WORDS } from './words';

/**
 * Cutting the song: everything is done on the song as it is played now, and the beat goes on evenly over every join.
 */

const open = () => {
  const { piece, times, analysis } = useDesk.getState();
  return piece?.music && times && analysis ? { piece, music: piece.music, times, analysis } : null;
};
type Open = NonNullable<ReturnType<typeof open>>;

function onBeat({ times }: Open, seconds: number): number {
  return beatToSeconds(times.grid, Math.round(secondsToBeat(times.grid, seconds)));
}

/** The marked stretch, its edges drawn to the beats and kept inside the music. */
export function markedStretch(): Stretch | null {
  const o = open();
  const { loop } = useDesk.getState();
  if (!o || !loop) return null;
  const whole = musicSpan(o.music, o.analysis.duration);
  const from = Math.max(whole.from, onBeat(o, loop.from));
  const to = Math.min(whole.to, onBeat(o, loop.to));
  return to > from + 0.05 ? { from, to } : null;
}

/**
 * Moves the start of each stretch by up to a few milliseconds, to where its sound best continues what was heard before
 * the join.
 */
function matched(o: Open, stretches: readonly Stretch[]): Stretch[] {
  const buffer = loadedSound();
  if (!buffer) return [...stretches];
  const samples = buffer.getChannelData(0);
  return stretches.map((stretch, i) => {
    const before = stretches[i - 1];
    if (!before || Math.abs(before.to - stretch.from) < 1e-6) return stretch;
    const at = pieceToSong(o.music, before.to - 1e-6);
    const to = pieceToSong(o.music, stretch.from);
    return { from: stretch.from + bestJoin(samples, buffer.sampleRate, at, to) - to, to: stretch.to };
  });
}

function arrange(o: Open, stretches: readonly Stretch[]): boolean {
  return (
    stretches.length > 0 &&
    edit([{ type: 'music.arrange', duration: o.analysis.duration, stretches: matched(o, stretches) }])
  );
}

const preview = (seconds: number) => playhead.set(Math.max(0, seconds - 1.5));

export function leaveOutStretch(): void {
  const o = open();
  const stretch = markedStretch();
  if (!o || !stretch) return setView({ notice: WORDS.markAStretchFirst });
  if (!arrange(o, withoutStretch(musicSpan(o.music, o.analysis.duration), stretch))) return;
  setView({ loop: null, notice: WORDS.leftOutSPlay((stretch.to - stretch.from).toFixed(2)) });
  preview(stretch.from);
}

export function repeatStretch(): void {
  const o = open();
  const stretch = markedStretch();
  if (!o || !stretch) return setView({ notice: WORDS.markAStretchFirst });
  if (!arrange(o, withRepeat(musicSpan(o.music, o.analysis.duration), stretch, 1))) return;
  setView({ loop: null });
  preview(stretch.to);
}

/** Plays the marked stretch alone. */
export function keepStretch(): void {
  const o = open();
  const stretch = markedStretch();
  if (!o || !stretch) return setView({ notice: WORDS.markAStretchFirst });
  if (arrange(o, [stretch])) setView({ loop: null });
}

/** Splits the song at the playhead: at the nearest beat, or exactly there. */
export function splitSong(where: 'beat' | 'here'): void {
  const o = open();
  if (!o) return;
  const at = pieceToSong(o.music, where === 'beat' ? onBeat(o, playhead.seconds) : playhead.seconds);
  const parts = splitParts(o.music, o.analysis.duration);
  const seconds = songToPiece(o.music, at);
  const k = parts.findIndex((p) => seconds > p.at + 0.05 && seconds < p.at + p.to - p.from - 0.05);
  if (k < 0) return setView({ notice: WORDS.theSongIsAlready });
  const cuts = [...o.music.cuts];
  cuts.splice(k, 0, { at, to: at });
  edit([{ type: 'music.set', music: { ...o.music, cuts } }]);
}

/** Takes one part of the song out, by its place in the list. */
export function leaveOutPart(index: number): void {
  const o = open();
  if (!o) return;
  const part = splitParts(o.music, o.analysis.duration)[index];
  if (part)
    arrange(
      o,
      withoutStretch(musicSpan(o.music, o.analysis.duration), { from: part.at, to: part.at + part.to - part.from }),
    );
}

export function repeatPart(index: number): void {
  const o = open();
  if (!o) return;
  const part = splitParts(o.music, o.analysis.duration)[index];
  if (part)
    arrange(
      o,
      withRepeat(musicSpan(o.music, o.analysis.duration), { from: part.at, to: part.at + part.to - part.from }, 1),
    );
}

const uncut = (music: Music): Music => ({ ...music, cuts: [], trimStart: 0, trimEnd: null });

export function uncutSong(): void {
  const o = open();
  if (o) edit([{ type: 'music.set', music: uncut(o.music) }]);
}

/** Bars of the analysis that lie in the song, with where each begins and ends. */
function songBars(analysis: SongAnalysis): { from: number; to: number; sound: readonly number[] }[] {
  return analysis.bars.flatMap((bar, k) => {
    const from = analysis.beats[bar.beat];
    const next = analysis.bars[k + 1];
    const to = next ? analysis.beats[next.beat] : analysis.duration;
    return from === undefined || to === undefined ? [] : [{ from, to, sound: bar.sound }];
  });
}

/**
 * Fits the whole song to a length by leaving out or repeating whole bars; the song begins as it begins and comes to its
 * own end. The piece then ends with it.
 */
export function fitSong(seconds: number): void {
  const o = open();
  if (!o) return;
  const bars = songBars(o.analysis);
  const [first] = bars;
  const inner = bars
    .slice(0, -1)
    .map((b) => b.to - b.from)
    .sort((a, b) => a - b);
  const barLength = inner[inner.length >> 1];
  if (!first || !barLength || bars.length < 3) return setView({ notice: WORDS.theSongHasToo });
  const tail = o.analysis.duration - bars[bars.length - 1]!.from; // there are at least three
  const wanted = 1 + Math.max(1, Math.round((seconds - first.from - tail) / barLength));
  const ranges = fitToBars(
    bars.map((b) => b.sound),
    wanted,
  );
  if (!ranges)
    return setView({
      notice: WORDS.theSongCanBe(
        (first.from + barLength + tail).toFixed(1),
        (first.from + barLength * (4 * bars.length - 1) + tail).toFixed(1),
      ),
    });
  // Stretches of the uncut song, which is laid down in the same step.
  const whole = uncut(o.music);
  const stretches = ranges.map((range, i) => ({
    from: songToPiece(whole, i === 0 ? 0 : bars[range.from]!.from),
    to: songToPiece(whole, range.to === bars.length ? o.analysis.duration : bars[range.to]!.from),
  }));
  const end = stretches.reduce((sum, s) => sum + s.to - s.from, o.music.start);
  const joined = matched({ ...o, music: whole }, stretches);
  if (
    edit([
      { type: 'music.set', music: whole },
      { type: 'music.arrange', duration: o.analysis.duration, stretches: joined },
      { type: 'piece.setEnd', end: { kind: 'free', seconds: Math.round(end * 1000) / 1000 } },
    ])
  ) {
    setView({
      notice: WORDS.theSongNowPlays(end.toFixed(1), joined.length - 1, joined.length === 2 ? '' : 's'),
      loop: null,
    });
  }
}

/**
 * Moves the song so that a time of it falls at the playhead. What was set stays where it is, on the beats that are
 * there now.
 */
export function putHere(songSeconds: number): void {
  const o = open();
  if (!o) return;
  const from = songToPieceAll(o.music, songSeconds)[0];
  if (from === undefined) return setView({ notice: WORDS.thatPlaceIsCut });
  const by = playhead.seconds - from;
  const { grid } = o.times;
  const beatShift = Math.round(secondsToBeat(grid, from) - secondsToBeat(grid, playhead.seconds));
  edit([{ type: 'music.place', start: o.music.start + by, beatShift }]);
}
