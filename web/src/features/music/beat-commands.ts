import { FEWEST_TAPS, applyEdits, beatsFromTaps, pieceToSong, resolveTimes } from '@core/piece';
import type { GridCorrection, Music } from '@core/piece';
import { beatToSeconds, doubtfulStretches, overallTempo, secondsToBeat } from '@core/time';
import { playhead } from '../../platform/clock';
import { newId } from '../../platform/ids';
import { heardWhen, isPlaying } from '../../platform/playback';
import { edit, setView, useDesk } from '../../store/desk-store';
import { playWithBeats } from '../desk/play-commands';
import { WORDS } from './words';

/**
 * Corrections of the beats, from the panel, the keys and the timeline. All are edits of the piece; the analysis is
 * never touched.
 */

const open = () => {
  const { piece, times, analysis } = useDesk.getState();
  return piece?.music && times ? { piece, music: piece.music, times, analysis } : null;
};

export const correct = (correction: Partial<GridCorrection>, gesture: string | null = null): boolean =>
  edit([{ type: 'music.correct', correction }], gesture);

/** Song time without the shift of the whole grid, which corrections are stored in. */
const gridTime = (music: Music, seconds: number) => pieceToSong(music, seconds) - music.correction.shift;

/** Twice or half the beats, or all of them half a beat later. */
export type BeatChange = 'double' | 'half' | 'shift';

/** What a change makes of the corrections that are made already; null without music. */
function changed(change: BeatChange): Partial<GridCorrection> | null {
  const o = open();
  if (!o) return null;
  const { bpm, factor, shift } = o.music.correction;
  if (change === 'shift') return { shift: shift + 30 / overallTempo(o.times.grid) };
  if (change === 'double') return bpm ? { bpm: bpm * 2 } : { factor: factor === 0.5 ? 1 : 2 };
  return bpm ? { bpm: bpm / 2 } : { factor: factor === 2 ? 1 : 0.5 };
}

export function changeBeats(change: BeatChange): void {
  const correction = changed(change);
  if (correction) correct(correction);
}

/** Plays the song with clicks as the beats would be; nothing is changed. */
export function hearBeats(change: BeatChange): void {
  const o = open();
  const correction = changed(change);
  if (!o || !correction) return;
  const { piece } = applyEdits(o.piece, [{ type: 'music.correct', correction }], o.times);
  void playWithBeats(resolveTimes(piece, o.analysis));
}

/** Moves the whole grid by milliseconds. */
export function nudgeGrid(milliseconds: number): void {
  const o = open();
  if (o) correct({ shift: o.music.correction.shift + milliseconds / 1000 }, 'nudge-grid');
}

/** The beat nearest to the playhead begins a bar, and bars have this many beats from here on. */
export function thisIsOne(beatsPerBar: number, groups: readonly number[] = []): void {
  const o = open();
  if (!o) return;
  const { grid } = o.times;
  const at = gridTime(o.music, beatToSeconds(grid, Math.round(secondsToBeat(grid, playhead.seconds))));
  const bar = { at, beatsPerBar, groups: [...groups] };
  correct({ bars: [...o.music.correction.bars.filter((b) => Math.abs(b.at - at) > 0.1), bar] });
}

/** Drags a beat: `at` is where it lay when the drag began, both in seconds of the piece. */
export function dragBeat(at: number, to: number, before: GridCorrection['moves'], gesture: string): void {
  const o = open();
  if (!o) return;
  const from = gridTime(o.music, at);
  // The beat may have been moved before: then that move is changed, because corrections refer to the beats that were
  // found.
  const known = before.find((m) => Math.abs(m.to - from) < 0.002);
  const move = { at: known?.at ?? from, to: gridTime(o.music, to) };
  correct({ moves: [...before.filter((m) => m !== known), move] }, gesture);
}

/** The marked stretch has this many beats, from its first edge to its last. */
export function anchorStretch(beats: number): void {
  const o = open();
  const { loop } = useDesk.getState();
  if (!o || !loop) return;
  const span = {
    start: gridTime(o.music, loop.from),
    end: gridTime(o.music, loop.to),
    beats: Math.max(1, Math.round(beats)),
  };
  correct({ spans: [...o.music.correction.spans.filter((s) => s.end <= span.start || s.start >= span.end), span] });
}

/** Free time in the marked stretch: no lattice, no snapping. */
export function freeStretch(): void {
  const o = open();
  const { loop } = useDesk.getState();
  if (!o || !loop) return;
  correct({
    free: [...o.music.correction.free, { start: pieceToSong(o.music, loop.from), end: pieceToSong(o.music, loop.to) }],
  });
}

/** The whole song without beats: what is pinned, is pinned to its hits. */
export function freeSong(): void {
  const o = open();
  if (o?.analysis) correct({ free: [{ start: 0, end: o.analysis.duration }] });
}

/** Marks the next stretch of doubtful beats behind the playhead, and goes there; from the last on to the first. */
export function goToDoubtful(): void {
  const o = open();
  const doubtful = o ? doubtfulStretches(o.times.grid) : [];
  const next = doubtful.find((s) => s.start > playhead.seconds + 0.01) ?? doubtful[0];
  if (!next) return setView({ notice: WORDS.noDoubtfulBeats });
  playhead.set(Math.max(0, next.start));
  setView({ loop: { from: Math.max(0, next.start), to: next.end } });
}

let taps: number[] = [];
let tapGesture = '';
let lastTap = -Infinity;
/** A pause this long begins anew. */
const NEW_TAPS_AFTER = 3000;

/**
 * One tap along with the music. From the fourth on the whole song's beats follow; all taps of a run are one step of
 * undo.
 */
export function tap(eventTime: number): void {
  const o = open();
  if (!o?.analysis) return setView({ notice: WORDS.thereIsNoMusic });
  if (!isPlaying()) return setView({ notice: WORDS.playTheMusicSpace });
  if (eventTime - lastTap > NEW_TAPS_AFTER) {
    taps = [];
    tapGesture = `taps-${newId()}`;
  }
  lastTap = eventTime;
  taps = [...taps, pieceToSong(o.music, heardWhen(eventTime))];
  if (taps.length < FEWEST_TAPS) return setView({ notice: WORDS.tappedGoOn(taps.length) });
  const beats = beatsFromTaps(taps, o.analysis.hits, o.analysis.duration);
  if (!beats) return setView({ notice: WORDS.tappedTooUnevenFor(taps.length) });
  correct({ tapped: beats, bpm: null, factor: 1, moves: [], spans: [] }, tapGesture);
  const middle = beats.length >> 1;
  setView({
    notice: WORDS.tappedBpm(taps.length, (60 / ((beats[middle + 1] ?? 1) - (beats[middle] ?? 0))).toFixed(1)),
  });
}
