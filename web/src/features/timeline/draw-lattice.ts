import { drawGrid } from './draw-grid';
import { drawMarkers, drawMusic } from './draw-music';
import { PARTS, RULER, WAVE, colour } from './staff';
import type { LatticeScene } from './staff';
import { timeToX, xToTime } from './time-axis';
import { WORDS } from './words';

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
    g.fillText(
      scene.piece.music ? WORDS.theSongIsBeing : WORDS.noMusicYetThe,
      Math.max(10, timeToX(axis, 0) + 10),
      RULER + PARTS + WAVE / 2,
    );
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
