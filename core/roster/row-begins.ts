import { timecodeToFrame } from '../time';
import type { FrameRate, Seconds } from '../time';

const SECONDS = /^(?:(\d{1,3}):)?(\d{1,5})(?:[.,](\d{1,6}))?(?:\s*s)?$/i;

/**
 * When a row begins, as people write it: seconds (12, 12.5, 12,5 s), minutes and seconds (1:02.5), or timecode of the
 * piece's rate with hours or frames (00:01:02:15).
 * @returns seconds of the piece; null if it is no time.
 */
export function beginsAt(cell: string, rate: FrameRate): Seconds | null {
  const text = cell.trim();
  const plain = SECONDS.exec(text);
  if (plain) {
    const [, minutes, seconds, rest] = plain;
    if (minutes !== undefined && Number(seconds) > 59) return null;
    return Number(minutes ?? 0) * 60 + Number(`${seconds}.${rest ?? '0'}`);
  }
  const frame = timecodeToFrame(text, rate);
  return frame === null || frame < 0 ? null : (frame * rate.den) / rate.num;
}
