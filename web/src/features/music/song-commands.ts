import { bestJoin } from '@core/audio';
import {
  fitSong,
  musicSpan,
  pieceToSong,
  songToPiece,
  songToPieceAll,
  splitParts,
  uncut,
  withRepeat,
  withoutStretch,
} from '@core/piece';
import type { Stretch } from '@core/piece';
import { beatToSeconds, freeMoment, secondsToBeat } from '@core/time';
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

export function uncutSong(): void {
  const o = open();
  if (o) edit([{ type: 'music.set', music: uncut(o.music) }]);
}

/** Fits the song to a length by leaving out or repeating whole bars. The piece then ends with it. */
export function fitSongTo(seconds: number): void {
  const o = open();
  if (!o) return;
  const fit = fitSong(o.music, o.analysis, seconds);
  if (fit.kind === 'too-few-bars') return setView({ notice: WORDS.theSongHasToo });
  if (fit.kind === 'not-that-long')
    return setView({ notice: WORDS.theSongCanBe(fit.shortest.toFixed(1), fit.longest.toFixed(1)) });
  const whole = uncut(o.music);
  const joined = matched({ ...o, music: whole }, fit.stretches);
  if (
    edit([
      { type: 'music.set', music: whole },
      { type: 'music.arrange', duration: o.analysis.duration, stretches: joined },
      { type: 'piece.setEnd', end: freeMoment(Math.round(fit.end * 1000) / 1000) },
    ])
  ) {
    setView({
      notice: WORDS.theSongNowPlays(fit.end.toFixed(1), joined.length - 1, joined.length === 2 ? '' : 's'),
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
