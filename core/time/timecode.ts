import { framesPerSecond, secondsToFrame } from './frame-rate';
import type { FrameRate } from './frame-rate';
import type { FrameIndex, Seconds } from './units';

/**
 * Timecode after SMPTE ST 12-1. 29.97 and 59.94 count drop-frame (written with ';'): frame numbers 0 and 1 (0-3 at
 * 59.94) are skipped at each minute not divisible by ten, so that the count stays with the clock.
 */
function dropCount(rate: FrameRate): number {
  if (rate.den !== 1001) return 0;
  if (rate.num === 30000) return 2;
  if (rate.num === 60000) return 4;
  return 0;
}

/** HH:MM:SS:FF (';' before the frames in drop-frame). Negative frames get a leading minus. */
export function frameToTimecode(frame: FrameIndex, rate: FrameRate): string {
  if (frame < 0) return `-${frameToTimecode(-frame, rate)}`;
  const nominal = Math.round(framesPerSecond(rate));
  const drop = dropCount(rate);
  let count = frame;
  if (drop > 0) {
    const perMinute = nominal * 60 - drop;
    const perTen = perMinute * 10 + drop;
    const tens = Math.floor(frame / perTen);
    const rest = frame % perTen;
    count += drop * 9 * tens + (rest < drop ? 0 : drop * Math.floor((rest - drop) / perMinute));
  }
  const pad = (n: number) => String(n).padStart(2, '0');
  const ff = count % nominal;
  const totalSeconds = Math.floor(count / nominal);
  return `${pad(Math.floor(totalSeconds / 3600))}:${pad(Math.floor(totalSeconds / 60) % 60)}:${pad(totalSeconds % 60)}${drop > 0 ? ';' : ':'}${pad(ff)}`;
}

/** Inverse of {@link frameToTimecode}; null if the text is no timecode of this rate (a dropped number is none). */
export function timecodeToFrame(text: string, rate: FrameRate): FrameIndex | null {
  const m = /^(-?)(?:(\d+):)?(\d{1,2}):(\d{1,2})[:;](\d{1,2})$/.exec(text.trim());
  if (!m) return null;
  const [h, min, s, ff] = [Number(m[2] ?? 0), Number(m[3]), Number(m[4]), Number(m[5])];
  const nominal = Math.round(framesPerSecond(rate));
  if (min > 59 || s > 59 || ff >= nominal) return null;
  const drop = dropCount(rate);
  if (drop > 0 && s === 0 && ff < drop && min % 10 !== 0) return null;
  const minutes = h * 60 + min;
  const frame = (minutes * 60 + s) * nominal + ff - drop * (minutes - Math.floor(minutes / 10));
  return m[1] ? -frame : frame;
}

/** Clock text for people: m:ss.mmm. */
export function formatClock(seconds: Seconds): string {
  const sign = seconds < 0 ? '-' : '';
  const ms = Math.round(Math.abs(seconds) * 1000);
  return `${sign}${String(Math.floor(ms / 60000)).padStart(2, '0')}:${String(Math.floor(ms / 1000) % 60).padStart(2, '0')}.${String(ms % 1000).padStart(3, '0')}`;
}

export function secondsToTimecode(seconds: Seconds, rate: FrameRate): string {
  return frameToTimecode(secondsToFrame(seconds, rate), rate);
}
