import type { HitClass, SongAnalysis } from '@core/audio';
import { fadeGain, heardTimes, lastHeard, songParts, songTime, splitParts } from '@core/piece';
import type { Music, SongPart } from '@core/piece';
import { beatStress, beatToSeconds, beatsBetween } from '@core/time';
import { MUSIC_HEIGHT, PARTS, RULER, STAFF, WAVE, colour } from './staff';
import type { LatticeScene } from './staff';
import { timeToX, xToTime } from './time-axis';

const WAVE_TOP = RULER + PARTS;
const STAFF_TOP = WAVE_TOP + WAVE;
const LINES = {
  high: STAFF_TOP + 7,
  mid: STAFF_TOP + 17,
  tonal: STAFF_TOP + 17,
  low: STAFF_TOP + 27,
} as const satisfies Record<HitClass, number>;

/** The music as the top staff: its parts by name, the waveform, and the hits as note heads on three lines. */
export function drawMusic(
  g: CanvasRenderingContext2D,
  scene: LatticeScene,
  music: Music,
  analysis: SongAnalysis,
  from: number,
  to: number,
): void {
  const { axis } = scene;
  const parts = songParts(music, analysis.duration);
  const plays = (seconds: number) => parts.some((p) => seconds >= p.at && seconds < p.at + p.to - p.from);

  const tide = colour('--tide');
  const { peaks, rms, peakRate } = analysis;
  const middle = WAVE_TOP + WAVE / 2;
  for (const [values, alpha] of [
    [peaks, 0.45],
    [rms, 1],
  ] as const) {
    g.fillStyle = tide;
    g.globalAlpha = alpha;
    for (let x = 0; x < axis.width; x++) {
      const seconds = xToTime(axis, x);
      if (!plays(seconds)) continue;
      const a = songTime(parts, seconds);
      const b = a + 1 / axis.pixelsPerSecond;
      let top = 0;
      for (
        let i = Math.max(0, Math.floor(a * peakRate));
        i <= Math.min(values.length - 1, Math.floor(b * peakRate));
        i++
      )
        top = Math.max(top, values[i]!);
      const h = (top / 255) * (WAVE / 2 - 2);
      if (h > 0) g.fillRect(x, middle - h, 1, Math.max(1, 2 * h));
    }
  }
  g.globalAlpha = 1;
  drawSections(g, scene, parts, analysis);

  g.fillStyle = colour('--lattice-beat');
  for (const y of [LINES.high, LINES.mid, LINES.low]) g.fillRect(0, y, axis.width, 1);
  if (scene.showsCurves) drawCurves(g, scene, parts, analysis, plays);
  const heads = {
    high: colour('--muted'),
    mid: colour('--text'),
    tonal: colour('--text'),
    low: tide,
  } as const satisfies Record<HitClass, string>;
  for (const hit of analysis.hits) {
    for (const t of heardTimes(parts, hit.time)) {
      if (t < from - 0.1 || t > to + 0.1 || !plays(t)) continue;
      const r = 1.4 + 2.8 * hit.strength;
      g.beginPath();
      g.ellipse(timeToX(axis, t), LINES[hit.class] + 0.5, r * 1.15, r * 0.85, -0.35, 0, Math.PI * 2);
      // A pitch without a noisy attack is an open head.
      if (hit.class === 'tonal') {
        g.strokeStyle = heads.tonal;
        g.stroke();
      } else {
        g.fillStyle = heads[hit.class];
        g.fill();
      }
    }
  }
  drawFades(g, scene, music, parts);
  // Joins: where the song jumps, or is only split.
  for (const part of splitParts(music, analysis.duration).slice(1)) {
    const x = Math.round(timeToX(axis, part.at));
    const isCut = parts.some((p) => Math.abs(p.at - part.at) < 1e-6);
    g.fillStyle = isCut ? colour('--lamp') : colour('--muted');
    for (let y = WAVE_TOP; y < WAVE_TOP + WAVE; y += isCut ? 1 : 5) g.fillRect(x, y, 1.5, isCut ? 1 : 3);
    if (isCut) {
      g.beginPath();
      g.moveTo(x - 4, WAVE_TOP);
      g.lineTo(x + 5.5, WAVE_TOP);
      g.lineTo(x + 0.75, WAVE_TOP + 5);
      g.fill();
    }
  }
  if (scene.isMovingBeats) drawBeatHandles(g, scene, from, to);
}

function drawSections(
  g: CanvasRenderingContext2D,
  { axis }: LatticeScene,
  parts: readonly SongPart[],
  analysis: SongAnalysis,
): void {
  g.font = "500 10.5px 'Spline Sans Variable'";
  g.textBaseline = 'middle';
  analysis.sections.forEach((section, i) => {
    for (const part of parts) {
      const a = Math.max(section.start, part.from);
      const b = Math.min(section.end, part.to);
      if (b - a < 0.05) continue;
      const x = timeToX(axis, part.at + a - part.from);
      const width = (b - a) * axis.pixelsPerSecond;
      g.fillStyle = colour('--tide');
      g.globalAlpha = 0.12 + 0.2 * section.energy;
      g.fillRect(x + 0.5, RULER + 1, width - 1, PARTS - 3);
      g.globalAlpha = 1;
      g.save();
      g.beginPath();
      g.rect(x, RULER, width, PARTS);
      g.clip();
      g.fillStyle = colour('--text');
      // Neighbours of one kind are read as one.
      if (analysis.sections[i - 1]?.label !== section.label || a > section.start)
        g.fillText(section.label, Math.max(x, 0) + 6, RULER + PARTS / 2);
      g.restore();
    }
  });
  g.fillStyle = colour('--lamp');
  for (const drop of analysis.drops) {
    for (const t of heardTimes(parts, drop.time)) {
      const x = timeToX(axis, t);
      g.beginPath();
      g.moveTo(x, RULER + PARTS - 1);
      g.lineTo(x - 4, RULER + 4);
      g.lineTo(x + 4, RULER + 4);
      g.fill();
    }
  }
}

function drawCurves(
  g: CanvasRenderingContext2D,
  { axis }: LatticeScene,
  parts: readonly SongPart[],
  analysis: SongAnalysis,
  plays: (seconds: number) => boolean,
): void {
  const { curves, curveRate } = analysis;
  const bands = [
    [curves.low, LINES.low, '--tide'],
    [curves.mid, LINES.mid, '--text'],
    [curves.high, LINES.high, '--muted'],
  ] as const;
  for (const [curve, base, name] of bands) {
    g.fillStyle = colour(name);
    g.globalAlpha = 0.35;
    for (let x = 0; x < axis.width; x++) {
      const seconds = xToTime(axis, x);
      if (!plays(seconds)) continue;
      const a = Math.max(0, Math.floor(songTime(parts, seconds) * curveRate));
      const b = Math.floor((songTime(parts, seconds) + 1 / axis.pixelsPerSecond) * curveRate);
      let top = 0;
      for (let i = a; i <= b; i++) top = Math.max(top, curve[i] ?? 0);
      const h = (top / 255) * 9;
      if (h > 0.4) g.fillRect(x, base - h, 1, h);
    }
  }
  g.globalAlpha = 1;
}

const HANDLE_RADIUS = { bar: 4, group: 3.5, beat: 3 } as const;

/** Small handles on the staff, by which a beat is dragged. */
function drawBeatHandles(g: CanvasRenderingContext2D, { axis, times }: LatticeScene, from: number, to: number): void {
  for (const beat of beatsBetween(times.grid, from, to)) {
    const x = timeToX(axis, beatToSeconds(times.grid, beat));
    g.fillStyle = colour('--lamp');
    g.globalAlpha = 0.55;
    g.fillRect(Math.round(x), WAVE_TOP, 1, WAVE + STAFF);
    g.globalAlpha = 1;
    g.beginPath();
    g.arc(x + 0.5, WAVE_TOP + 4, HANDLE_RADIUS[beatStress(times.grid, beat)], 0, Math.PI * 2);
    g.fill();
  }
}

export function drawMarkers(g: CanvasRenderingContext2D, { axis, piece, times }: LatticeScene): void {
  g.font = "500 11px 'Spline Sans Variable'";
  g.textBaseline = 'middle';
  const placed = piece.markers
    .map((marker) => ({ marker, x: timeToX(axis, times.timeOf(marker.at)) }))
    .filter(({ x }) => x > -200 && x < axis.width + 2)
    .sort((a, b) => a.x - b.x);
  placed.forEach(({ marker, x }, i) => {
    g.fillStyle = marker.colour;
    g.fillRect(x - 0.5, RULER - 4, 1.5, MUSIC_HEIGHT - RULER + 4);
    // A name is written where the next marker leaves room for it.
    const room = (placed[i + 1]?.x ?? Infinity) - x - 8;
    g.fillStyle = colour('--text');
    if (room > g.measureText(marker.name).width) g.fillText(marker.name, x + 5, RULER + PARTS + 7);
  });
}

/** Where the fades begin and end, with the grips on the waveform; null without sound. */
export function fadeHandles(
  music: Music,
  duration: number,
  pieceEnd: number,
): { rise: number; fall: number; start: number; finish: number } | null {
  if (songParts(music, duration).length === 0) return null;
  const finish = lastHeard(music, duration, pieceEnd);
  return { start: music.start, finish, rise: music.start + music.fadeIn, fall: finish - music.fadeOut };
}

function drawFades(
  g: CanvasRenderingContext2D,
  { axis, analysis, times }: LatticeScene,
  music: Music,
  parts: readonly SongPart[],
): void {
  const handles = fadeHandles(music, analysis?.duration ?? Infinity, times.end);
  if (!handles || parts.length === 0) return;
  g.strokeStyle = colour('--lamp');
  g.lineWidth = 1.2;
  for (const [from, to, curve] of [
    [handles.start, handles.rise, music.fadeInCurve],
    [handles.finish, handles.fall, music.fadeOutCurve],
  ] as const) {
    if (from !== to) {
      g.beginPath();
      for (let k = 0; k <= 24; k++)
        g.lineTo(
          timeToX(axis, from + ((to - from) * k) / 24),
          WAVE_TOP + WAVE - 1 - (WAVE - 6) * fadeGain(curve, k / 24),
        );
      g.stroke();
    }
  }
  g.lineWidth = 1;
}
