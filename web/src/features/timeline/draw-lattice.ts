import type { SongAnalysis } from '@core/audio';
import type { Piece, ResolvedTimes } from '@core/piece';
import { songToPiece } from '@core/piece';
import { barsBetween, barToBeat, beatToSeconds, beatsBetween } from '@core/time';
import { timeToX, xToTime } from './time-axis';
import type { TimeAxis } from './time-axis';

/** Heights of the music's staff, from the top: bar numbers, waveform, three lines of hits. */
export const RULER = 24;
export const WAVE = 46;
export const STAFF = 36;
export const MUSIC_HEIGHT = RULER + WAVE + STAFF;

export interface LatticeScene {
  readonly axis: TimeAxis;
  readonly piece: Piece;
  readonly times: ResolvedTimes;
  readonly analysis: SongAnalysis | null;
  readonly loop: { readonly from: number; readonly to: number } | null;
  readonly height: number;
  readonly names: number;
}

const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** Draws the beat lattice through all rows, and the music as the top staff. */
export function drawLattice(canvas: HTMLCanvasElement, scene: LatticeScene): void {
  const ratio = window.devicePixelRatio || 1;
  const { axis, times, piece, analysis, height, names } = scene;
  const width = axis.width + names;
  canvas.width = Math.round(width * ratio);
  canvas.height = Math.round(height * ratio);
  canvas.style.width = `${width}px`;
  canvas.style.height = `${height}px`;
  const g = canvas.getContext('2d');
  if (!g) return;
  g.scale(ratio, ratio);
  g.save();
  g.beginPath();
  g.rect(names, 0, axis.width, height);
  g.clip();
  g.translate(names, 0);
  const from = xToTime(axis, 0);
  const to = xToTime(axis, axis.width);
  const { grid } = times;

  if (scene.loop) {
    g.fillStyle = colour('--lamp');
    g.globalAlpha = 0.1;
    g.fillRect(timeToX(axis, scene.loop.from), 0, (scene.loop.to - scene.loop.from) * axis.pixelsPerSecond, height);
    g.globalAlpha = 1;
  }

  const beatPixels = (beatToSeconds(grid, 1) - beatToSeconds(grid, 0)) * axis.pixelsPerSecond;
  const line = (x: number, top: number, style: string, w = 1) => {
    g.fillStyle = style;
    g.fillRect(Math.round(x) - (w > 1 ? 0.5 : 0), top, w, height - top);
  };
  const [barColour, beatColour, fineColour] = [colour('--lattice-bar'), colour('--lattice-beat'), colour('--lattice-fine')];
  if (beatPixels > 56) for (const beat of beatsBetween(grid, from, to, beatPixels > 150 ? 0.25 : 0.5)) if (!Number.isInteger(beat)) line(timeToX(axis, beatToSeconds(grid, beat)), RULER, fineColour);
  if (beatPixels > 9) for (const beat of beatsBetween(grid, from, to)) line(timeToX(axis, beatToSeconds(grid, beat)), RULER - 4, beatColour);
  g.font = "500 12px 'Spline Sans Variable'";
  g.textBaseline = 'middle';
  const bars = barsBetween(grid, from - 3, to);
  const barPixels = beatPixels * (grid.meters[0]?.beatsPerBar ?? 4);
  const every = barPixels > 26 ? 1 : barPixels > 12 ? 4 : 16;
  for (const bar of bars) {
    const x = timeToX(axis, beatToSeconds(grid, barToBeat(grid, bar)));
    if (barPixels > 5 || (bar - 1) % 4 === 0) line(x, 4, barColour);
    if ((bar - 1) % every === 0) {
      g.fillStyle = colour('--text');
      g.fillText(String(bar), x + 6, 12);
    }
  }

  const music = piece.music;
  if (music && analysis) {
    const { peaks, rms, peakRate } = analysis;
    const mid = RULER + WAVE / 2;
    const songEnd = music.trimEnd ?? analysis.duration;
    const tide = colour('--tide');
    for (const [values, alpha] of [[peaks, 0.45], [rms, 1]] as const) {
      g.fillStyle = tide;
      g.globalAlpha = alpha;
      for (let x = 0; x < axis.width; x++) {
        const a = xToTime(axis, x) - music.start + music.trimStart;
        const b = xToTime(axis, x + 1) - music.start + music.trimStart;
        if (b < music.trimStart || a > songEnd) continue;
        let top = 0;
        for (let i = Math.max(0, Math.floor(a * peakRate)); i <= Math.min(values.length - 1, Math.floor(b * peakRate)); i++) top = Math.max(top, values[i]!);
        const h = (top / 255) * (WAVE / 2 - 2);
        if (h > 0) g.fillRect(x, mid - h, 1, Math.max(1, 2 * h));
      }
    }
    g.globalAlpha = 1;
    // The three-line staff: a note head for each hit, larger for stronger ones.
    const staffTop = RULER + WAVE;
    const lines = { high: staffTop + 8, mid: staffTop + 18, tonal: staffTop + 18, low: staffTop + 28 };
    g.fillStyle = beatColour;
    for (const y of [lines.high, lines.mid, lines.low]) g.fillRect(0, y, axis.width, 1);
    const heads = { high: colour('--muted'), mid: colour('--text'), tonal: colour('--text'), low: tide };
    for (const hit of analysis.hits) {
      const t = songToPiece(music, hit.time);
      if (t < from - 0.1 || t > to + 0.1 || hit.time < music.trimStart || hit.time > songEnd) continue;
      const r = 1.4 + 2.8 * hit.strength;
      g.fillStyle = heads[hit.class];
      g.beginPath();
      g.ellipse(timeToX(axis, t), lines[hit.class] + 0.5, r * 1.15, r * 0.85, -0.35, 0, Math.PI * 2);
      // A pitch without a noisy attack is an open head.
      if (hit.class === 'tonal') {
        g.strokeStyle = heads.tonal;
        g.stroke();
      } else g.fill();
    }
  } else {
    g.fillStyle = colour('--muted');
    g.font = "400 12.5px 'Spline Sans Variable'";
    g.fillText(music ? 'The song is being listened to …' : 'No music yet: the lattice runs on the typed tempo', Math.max(10, timeToX(axis, 0) + 10), RULER + WAVE / 2 + 4);
  }

  for (const marker of piece.markers) {
    const x = timeToX(axis, times.timeOf(marker.at));
    g.fillStyle = marker.colour;
    g.fillRect(x - 0.5, 4, 1.5, MUSIC_HEIGHT - 4);
    g.font = "500 11px 'Spline Sans Variable'";
    g.fillText(marker.name, x + 5, RULER + 4);
  }
  // Beyond the end nothing is exported.
  g.fillStyle = colour('--ground');
  g.globalAlpha = 0.62;
  g.fillRect(timeToX(axis, times.end), 0, axis.width, height);
  if (from < 0) g.fillRect(0, 0, timeToX(axis, 0), height);
  g.globalAlpha = 1;
  g.restore();
}
