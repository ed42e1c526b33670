import { songOf } from '@core/piece';
import type { ResolvedTimes } from '@core/piece';
import { beatStress, beatToSeconds, beatsBetween, isFreeTime } from '@core/time';
import { playhead } from '../../platform/clock';
import { isPlaying, play, scrubSound, songBuffer, stop } from '../../platform/playback';
import type { Click } from '../../platform/playback';
import { setView, useDesk } from '../../store/desk-store';
import { WORDS } from './words';

export const loadedSound = (): AudioBuffer | null => buffer?.audio ?? null;

let buffer: { hash: string; audio: AudioBuffer } | null = null;

/** Fetches the song's sound ahead, so that the first play starts at once. */
export async function warmSound(): Promise<void> {
  const { piece } = useDesk.getState();
  const song = piece && songOf(piece);
  if (!song || buffer?.hash === song.hash) return;
  try {
    buffer = { hash: song.hash, audio: await songBuffer(song.hash) };
  } catch {
    buffer = null; // not prepared yet; asked again when it plays
  }
}

export async function togglePlay(): Promise<void> {
  if (isPlaying()) return stop();
  const { hasClicks, times } = useDesk.getState();
  await start(hasClicks && times ? clicksOf(times) : null);
}

/** Plays with clicks on beats that are not those of the piece: a correction that can be heard before it is made. */
export async function playWithBeats(times: ResolvedTimes): Promise<void> {
  if (isPlaying()) stop();
  await start(clicksOf(times));
}

async function start(clicks: readonly Click[] | null): Promise<void> {
  const { piece, times, loop } = useDesk.getState();
  if (!piece || !times) return;
  await warmSound();
  const song = songOf(piece);
  if (song && !buffer) setView({ notice: WORDS.theSongIsStill });
  setView({ isPlaying: true });
  await play({
    music: piece.music,
    buffer: buffer?.audio ?? null,
    end: times.end,
    timeOf: times.timeOf,
    loop,
    clicks,
    onStop: () => setView({ isPlaying: false }),
  });
}

/** The beats of the whole piece, for the click track. */
function clicksOf(times: ResolvedTimes): Click[] {
  const { grid, end } = times;
  return beatsBetween(grid, 0, end).flatMap((beat) => {
    const seconds = beatToSeconds(grid, beat);
    return isFreeTime(grid, seconds) ? [] : [{ seconds, stress: beatStress(grid, beat) }];
  });
}

/** Moves the playhead by hand, with the sound under it. */
export function scrubTo(seconds: number): void {
  const { piece, times } = useDesk.getState();
  if (!piece || !times) return;
  if (isPlaying()) stop();
  playhead.set(Math.min(times.end, Math.max(0, seconds)));
  const song = songOf(piece);
  if (song && buffer?.hash === song.hash) scrubSound(piece.music, buffer.audio, times.timeOf, playhead.seconds);
}
