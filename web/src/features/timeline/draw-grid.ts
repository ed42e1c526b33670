import {
  barToBeat,
  barsBetween,
  beatToSeconds,
  beatsBetween,
  doubtfulStretches,
  groupStartsBetween,
  isFreeTime,
} from '@core/time';
import { MUSIC_HEIGHT, RULER, colour } from './staff';
import type { LatticeScene } from './staff';
import { timeToX } from './time-axis';
import { WORDS } from './words';

/** Seconds between two labels of the clock, widest spacing last. */
const CLOCK_STEPS = [0.1, 0.2, 0.5, 1, 2, 5, 10, 30, 60, 120] as const;
const CLOCK_PIXELS = 62;
/** Groups of beats begin on a line as strong as a bar's, but not as high. */
const GROUP_TOP = RULER - 10;
/** From one dot to the next. */
const DOT_PITCH = 6;

/** The beat lattice through all rows, with bar numbers over seconds. Free time has no lines. */
export function drawGrid(
  g: CanvasRenderingContext2D,
  { axis, times, height }: LatticeScene,
  from: number,
  to: number,
): void {
  const { grid } = times;
  const beatPixels = (beatToSeconds(grid, 1) - beatToSeconds(grid, 0)) * axis.pixelsPerSecond;
  const line = (seconds: number, top: number, style: string) => {
    if (isFreeTime(grid, seconds)) return;
    g.fillStyle = style;
    g.fillRect(Math.round(timeToX(axis, seconds)), top, 1, height - top);
  };
  const [barColour, beatColour, fineColour] = [
    colour('--lattice-bar'),
    colour('--lattice-beat'),
    colour('--lattice-fine'),
  ];
  if (beatPixels > 56)
    for (const beat of beatsBetween(grid, from, to, beatPixels > 150 ? 0.25 : 0.5))
      if (!Number.isInteger(beat)) line(beatToSeconds(grid, beat), RULER, fineColour);
  if (beatPixels > 9)
    for (const beat of beatsBetween(grid, from, to)) line(beatToSeconds(grid, beat), RULER - 4, beatColour);
  if (beatPixels > 5)
    for (const beat of groupStartsBetween(grid, from, to)) line(beatToSeconds(grid, beat), GROUP_TOP, barColour);
  g.textBaseline = 'middle';
  const barPixels = beatPixels * (grid.meters[0]?.beatsPerBar ?? 4);
  const every = barPixels > 26 ? 1 : barPixels > 12 ? 4 : 16;
  g.font = "500 12px 'Spline Sans Variable'";
  for (const bar of barsBetween(grid, from - 3, to)) {
    const seconds = beatToSeconds(grid, barToBeat(grid, bar));
    if (barPixels > 5 || (bar - 1) % 4 === 0) line(seconds, 4, barColour);
    if ((bar - 1) % every === 0 && !isFreeTime(grid, seconds)) {
      g.fillStyle = colour('--text');
      g.fillText(String(bar), timeToX(axis, seconds) + 6, 9);
    }
  }
  const step = CLOCK_STEPS.find((s) => s * axis.pixelsPerSecond >= CLOCK_PIXELS) ?? 300;
  g.font = "400 10px 'Spline Sans Mono Variable'";
  g.fillStyle = colour('--muted');
  for (let k = Math.max(0, Math.ceil(from / step)); k * step <= to; k++) {
    const seconds = k * step;
    const x = timeToX(axis, seconds);
    g.fillRect(Math.round(x), RULER - 5, 1, 4);
    const minutes = Math.floor(seconds / 60);
    const rest = step < 1 ? (seconds % 60).toFixed(1) : String(Math.round(seconds % 60));
    g.fillText(minutes > 0 ? `${minutes}:${rest.padStart(step < 1 ? 4 : 2, '0')}` : `${rest}s`, x + 4, 22);
  }
  // Beats that may be wrong stand on a dotted line.
  g.fillStyle = colour('--lamp');
  for (const { start, end } of doubtfulStretches(grid)) {
    if (end < from || start > to) continue;
    const [first, last] = [timeToX(axis, start), timeToX(axis, Math.min(end, to))];
    const unseen = Math.max(0, Math.floor((timeToX(axis, from) - first) / DOT_PITCH));
    for (let x = first + unseen * DOT_PITCH; x < last; x += DOT_PITCH) g.fillRect(Math.round(x), RULER - 2, 3, 2);
  }
  for (const free of grid.free ?? []) {
    const x = timeToX(axis, free.start);
    const width = (free.end - free.start) * axis.pixelsPerSecond;
    g.fillStyle = colour('--lattice-fine');
    g.fillRect(x, RULER, width, MUSIC_HEIGHT - RULER);
    g.fillStyle = colour('--muted');
    g.font = "400 11px 'Spline Sans Variable'";
    if (width > 60) g.fillText(WORDS.freeTime, x + 6, 9);
  }
}
