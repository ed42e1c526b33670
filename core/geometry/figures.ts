import { roundedPolygon } from './corners';
import { numberText as n } from './number-text';
import { ellipsePath } from './shape-paths';

/** Outlines of figures that are made of a few numbers, centred on the origin. Angles are degrees clockwise from the top. */

export interface FigureNumbers {
  readonly width: number;
  readonly height: number;
  /** Corners of a polygon, tips of a star. */
  readonly points: number;
  /** Share of the outer size: the inner corners of a star, the hole of a ring or arc, the shaft of an arrow. */
  readonly inner: number;
  readonly radius: number;
  readonly from: number;
  readonly sweep: number;
  /** Share of the width: the head of an arrow; where the tail of a bubble stands. */
  readonly head: number;
}

type Point = readonly [number, number];
const TURN = Math.PI / 180;

const around = (width: number, height: number, degrees: number, share = 1): Point => [
  (width / 2) * share * Math.sin(degrees * TURN),
  (-height / 2) * share * Math.cos(degrees * TURN),
];

function polygon({ width, height, points, radius }: FigureNumbers): string {
  const count = Math.max(3, Math.round(points));
  return roundedPolygon(
    Array.from({ length: count }, (_, i) => around(width, height, (360 * i) / count)),
    radius,
  );
}

function star({ width, height, points, inner, radius }: FigureNumbers): string {
  const count = Math.max(3, Math.round(points));
  return roundedPolygon(
    Array.from({ length: 2 * count }, (_, i) => around(width, height, (180 * i) / count, i % 2 === 0 ? 1 : inner)),
    radius,
  );
}

function ring({ width, height, inner }: FigureNumbers): string {
  const hole = ellipsePath(width * inner, height * inner);
  return inner > 0 ? ellipsePath(width, height) + hole : ellipsePath(width, height);
}

/** Cubic Béziers along an ellipse, at most a quarter each. */
function ellipseArc(width: number, height: number, from: number, sweep: number, share: number): string {
  const pieces = Math.max(1, Math.ceil(Math.abs(sweep) / 90));
  const step = sweep / pieces;
  const k = (4 / 3) * Math.tan((step * TURN) / 4);
  let out = '';
  for (let i = 0; i < pieces; i++) {
    const [a, b] = [from + i * step, from + (i + 1) * step];
    const tangent = (degrees: number): Point => around(width, height, degrees + 90, share * k);
    const [p, q, u, v] = [around(width, height, a, share), around(width, height, b, share), tangent(a), tangent(b)];
    out += `C${n(p[0] + u[0])} ${n(p[1] + u[1])} ${n(q[0] - v[0])} ${n(q[1] - v[1])} ${n(q[0])} ${n(q[1])}`;
  }
  return out;
}

function arc(figure: FigureNumbers): string {
  const { width, height, inner, from } = figure;
  const sweep = Math.max(-360, Math.min(360, figure.sweep));
  if (sweep === 0) return '';
  if (Math.abs(sweep) >= 360) return ring(figure);
  const [start, end] = [around(width, height, from), around(width, height, from + sweep, inner)];
  const outer = `M${n(start[0])} ${n(start[1])}${ellipseArc(width, height, from, sweep, 1)}L${n(end[0])} ${n(end[1])}`;
  return inner > 0 ? `${outer}${ellipseArc(width, height, from + sweep, -sweep, inner)}Z` : `${outer}Z`;
}

function arrow({ width, height, inner, head, radius }: FigureNumbers): string {
  const [x, y, shaft] = [width / 2, height / 2, (height / 2) * inner];
  const neck = x - width * head;
  const corners: Point[] = [
    [-x, -shaft],
    [neck, -shaft],
    [neck, -y],
    [x, 0],
    [neck, y],
    [neck, shaft],
    [-x, shaft],
  ];
  return roundedPolygon(corners, radius);
}

/** Of the height, how far the tail of a bubble hangs down; of the width, how wide it begins. */
const TAIL = { height: 0.22, width: 0.16 } as const;

function bubble({ width, height, radius, head, inner }: FigureNumbers): string {
  const [x, y] = [width / 2, height / 2];
  const bottom = y - height * TAIL.height;
  const half = (width * TAIL.width) / 2;
  const r = Math.max(0, Math.min(radius, x - half, (bottom + y) / 2));
  const middle = Math.max(-x + r + half, Math.min(x - r - half, -x + width * head));
  const tip = middle + (inner - 0.5) * 2 * half;
  const corners: Point[] = [
    [-x, -y],
    [x, -y],
    [x, bottom],
    [middle + half, bottom],
    [tip, y],
    [middle - half, bottom],
    [-x, bottom],
  ];
  return roundedPolygon(corners, [r, r, r, 0, 0, 0, r]);
}

export const FIGURES = {
  polygon: { label: 'Polygon', path: polygon },
  star: { label: 'Star', path: star },
  ring: { label: 'Ring', path: ring },
  arc: { label: 'Arc', path: arc },
  arrow: { label: 'Arrow', path: arrow },
  bubble: { label: 'Speech bubble', path: bubble },
  line: { label: 'Line', path: ({ width }: FigureNumbers) => `M${n(-width / 2)} 0L${n(width / 2)} 0` },
} as const satisfies Record<string, { label: string; path: (figure: FigureNumbers) => string }>;
export type FigureId = keyof typeof FIGURES;
