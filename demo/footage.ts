import { execFileSync } from 'node:child_process';
import { createCanvas } from '@napi-rs/canvas';
import type { SKRSContext2D } from '@napi-rs/canvas';

/** Footage of the demo: a kite over the harbour at dusk, as a camera that follows nothing sees it. */

export const FOOTAGE_SIDES = { width: 960, height: 540 } as const;
export const FOOTAGE_RATE = 25;
export const FOOTAGE_FRAMES = 8 * FOOTAGE_RATE;
export const FOOTAGE_FILE = 'kite-over-the-harbour.mp4';

/** Where the kite is at a time: across the sky, with a rest in the wind. Shares of the sides. */
export function kiteAt(seconds: number): readonly [number, number] {
  const x = 0.5 + 0.34 * Math.sin(seconds * 0.62 - 1.1) + 0.03 * Math.sin(seconds * 2.9);
  const y = 0.36 + 0.12 * Math.sin(seconds * 1.24) + 0.02 * Math.cos(seconds * 3.7);
  return [x, y];
}

function sky(context: SKRSContext2D, width: number, height: number): void {
  const gradient = context.createLinearGradient(0, 0, 0, height);
  for (const [at, colour] of [
    [0, '#16283d'],
    [0.45, '#3b5a73'],
    [0.66, '#d98f5f'],
    [0.72, '#f0b878'],
  ] as const)
    gradient.addColorStop(at, colour);
  context.fillStyle = gradient;
  context.fillRect(0, 0, width, height);
}

function clouds(context: SKRSContext2D, seconds: number, width: number, height: number): void {
  context.fillStyle = '#f3d9c022';
  for (let i = 0; i < 9; i++) {
    const x = ((i * 0.173 + seconds * (0.006 + 0.002 * (i % 3))) % 1.3) - 0.15;
    const y = 0.1 + 0.045 * ((i * 7) % 9);
    context.beginPath();
    context.ellipse(x * width, y * height, width * (0.09 + 0.02 * (i % 4)), height * 0.02, 0, 0, Math.PI * 2);
    context.fill();
  }
}

function sea(context: SKRSContext2D, seconds: number, width: number, height: number): void {
  const top = 0.72 * height;
  context.fillStyle = '#1c3446';
  context.fillRect(0, top, width, height - top);
  context.strokeStyle = '#f0b87855';
  for (let row = 0; row < 16; row++) {
    const y = top + 6 + (row * row * height) / 900;
    context.lineWidth = 1 + row / 6;
    context.beginPath();
    for (let x = -40; x <= width; x += 8) {
      const lift = Math.sin(x / (22 + row * 5) + seconds * (1.3 + row * 0.05) + row) * (1 + row / 5);
      if (Math.sin(x / 61 + row * 1.7 + seconds * 0.4) < 0.2) context.moveTo(x, y + lift);
      else context.lineTo(x, y + lift);
    }
    context.stroke();
  }
  context.fillStyle = '#0d1822';
  for (let i = 0; i < 26; i++) {
    const house = ((i * 37) % 17) / 17;
    context.fillRect((i / 26) * width, top - height * (0.015 + 0.035 * house), width / 30, height * 0.06);
  }
  context.fillStyle = '#ffb74a';
  for (let i = 0; i < 14; i++) context.fillRect((((i * 53) % 97) / 97) * width, top - 4 - (i % 4) * 5, 3, 3);
}

function kite(context: SKRSContext2D, seconds: number, width: number, height: number): void {
  const [x, y] = kiteAt(seconds).map((share, axis) => share * (axis === 0 ? width : height)) as [number, number];
  const [ax, ay] = [width * 0.5, height * 0.97];
  context.strokeStyle = '#eee9df66';
  context.lineWidth = 1.5;
  context.beginPath();
  context.moveTo(ax, ay);
  context.quadraticCurveTo((x + ax) / 2 + 20, (y + ay) / 2 + 70, x, y);
  context.stroke();
  context.save();
  context.translate(x, y);
  context.rotate(0.35 * Math.sin(seconds * 1.9) + 0.25);
  const size = height * 0.085;
  for (const [colour, points] of [
    ['#ff6f59', [0, -1.2, 0.8, -0.1, 0, 0]],
    ['#ffb74a', [0, -1.2, -0.8, -0.1, 0, 0]],
    ['#e5543f', [0, 0, 0.8, -0.1, 0, 1.4]],
    ['#f09a2e', [0, 0, -0.8, -0.1, 0, 1.4]],
  ] as const) {
    context.fillStyle = colour;
    context.beginPath();
    for (let i = 0; i < 6; i += 2) context.lineTo(points[i]! * size, points[i + 1]! * size);
    context.closePath();
    context.fill();
  }
  context.strokeStyle = '#ff6f59';
  context.lineWidth = 3;
  context.beginPath();
  for (let t = 0; t <= 20; t++) context.lineTo(Math.sin(t / 2.5 - seconds * 6) * t * 0.9, size * 1.4 + t * size * 0.11);
  context.stroke();
  context.restore();
}

/** Writes the film as MP4. */
export function makeFootage(to: string): void {
  const { width, height } = FOOTAGE_SIDES;
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d');
  const frames = Array.from({ length: FOOTAGE_FRAMES }, (_, frame) => {
    const seconds = frame / FOOTAGE_RATE;
    for (const part of [clouds, sea, kite]) {
      if (part === clouds) sky(context, width, height);
      part(context, seconds, width, height);
    }
    return Buffer.from(context.getImageData(0, 0, width, height).data);
  });
  execFileSync(
    'ffmpeg',
    [
      ...['-v', 'error', '-y', '-f', 'rawvideo', '-pix_fmt', 'rgba', '-s', `${width}x${height}`],
      ...['-r', String(FOOTAGE_RATE), '-i', '-', '-vf', 'scale=out_color_matrix=bt709:out_range=limited'],
      ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '20', '-pix_fmt', 'yuv420p'],
      ...['-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709', '-bitexact', to],
    ],
    { input: Buffer.concat(frames), maxBuffer: 1e9, timeout: 120_000 },
  );
}
