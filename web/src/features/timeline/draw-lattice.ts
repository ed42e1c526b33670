import type { SongAnalysis } from '@core/audio';
import type { Piece, ResolvedTimes } from '@core/piece';
import { drawGrid } from './draw-grid';
import { drawMarkers, drawMusic } from './draw-music';
import { timeToX, xToTime } from './time-axis';
import type { TimeAxis } from './time-axis';

/** Heights of the music's staff, from the top: bar numbers over seconds, names of the parts, waveform, three lines of hits. */
export const RULER = 30;
export const PARTS = 15;
export const WAVE = 42;
export const STAFF = 34;
export const MUSIC_HEIGHT = RULER + PARTS + WAVE + STAFF;

export interface LatticeScene {
  readonly axis: TimeAxis;
  readonly piece: Piece;
  readonly times: ResolvedTimes;
  readonly analysis: SongAnalysis | null;
  readonly loop: { readonly from: number; readonly to: number } | null;
  readonly height: number;
  readonly names: number;
  readonly showsCurves: boolean;
  readonly isMovingBeats: boolean;
}

/** The value of a custom property of the theme. */
export const colour = (name: string): string => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** Draws the beat lattice through all rows, and the music as the top staff. */
export function drawLattice(canvas: HTMLCanvasElement, scene: LatticeScene): void {
  const ratio = window.devicePixelRatio || 1;
  const { axis, times, height, names } = scene;
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

  if (scene.loop) {
    g.fillStyle = colour('--lamp');
    g.globalAlpha = 0.1;
    g.fillRect(timeToX(axis, scene.loop.from), 0, (scene.loop.to - scene.loop.from) * axis.pixelsPerSecond, height);
    g.globalAlpha = 1;
  }

  drawGrid(g, scene, from, to);
  if (scene.piece.music && scene.analysis) drawMusic(g, scene, scene.piece.music, scene.analysis, from, to);
  else {
    g.fillStyle = colour('--muted');
    g.font = "400 12.5px 'Spline Sans Variable'";
    g.textBaseline = 'middle';
    g.fillText(scene.piece.music ? 'The song is being listened to …' : 'No music yet: the lattice runs on the typed tempo', Math.max(10, timeToX(axis, 0) + 10), RULER + PARTS + WAVE / 2);
  }
  drawMarkers(g, scene);
  // Beyond the end nothing is exported.
  g.fillStyle = colour('--ground');
  g.globalAlpha = 0.62;
  g.fillRect(timeToX(axis, times.end), 0, axis.width, height);
  if (from < 0) g.fillRect(0, 0, timeToX(axis, 0), height);
  g.globalAlpha = 1;
  g.restore();
}
