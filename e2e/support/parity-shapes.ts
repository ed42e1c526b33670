import { ROUND_STROKE, newGradient } from '@core/piece';
import type { Gradient, Layer, Paint, StrokeStyle } from '@core/piece';
import type { Part } from './parity-piece';

/** Scenes with every figure, every kind of gradient and stroke, copies and plates, for the comparison of browser and server. */

const SIDE: [number, number] = [110, 90];
const at = (column: number, row: number): [number, number] => [-240 + column * 120, -110 + row * 110];
const gradient = (shape: Gradient['shape'], more: Partial<Gradient> = {}): Gradient => ({
  ...newGradient(shape, '#ff6f59', '#14374980'),
  ...more,
});
const style = (more: Partial<StrokeStyle>): StrokeStyle => ({ ...ROUND_STROKE, ...more });
const paint = (id: string, more: Partial<Paint>): Paint => ({
  id,
  isOn: true,
  use: 'stroke',
  colour: '#54c6c0',
  gradient: null,
  width: 6,
  style: ROUND_STROKE,
  ...more,
});

const FIGURES = ['polygon', 'star', 'ring', 'arc', 'arrow', 'bubble', 'line'] as const;
const TURNED: Gradient['matrix'] = [0.3, 0.2, -0.1, 0.5, 0.5, 0.4];

export const SHAPE_SCENES: readonly (readonly [string, readonly Part[]])[] = [
  [
    'figures with round corners and strokes',
    FIGURES.map((figure, i): Part => [
      'figure',
      {
        dimensions: SIDE,
        position: at(i % 4, Math.floor(i / 4)),
        fill: '#ffb74a',
        stroke: '#eee9df',
        strokeWidth: 4,
        cornerRadius: i * 3,
        points: 5 + i,
        rotation: i * 8,
      },
      { figure, strokeStyle: style(i % 2 ? { join: 'miter', cap: 'butt', dash: [9, 5], dashShift: 3 } : {}) },
    ]),
  ],
  [
    'gradients of many stops, straight, turned, reflected and repeated',
    [
      gradient('linear'),
      gradient('linear', { matrix: TURNED, spread: 'reflect' }),
      gradient('radial', { focus: [0.4, -0.3] }),
      gradient('radial', { matrix: TURNED, spread: 'repeat' }),
      gradient('conic'),
      gradient('conic', { matrix: TURNED }),
      gradient('radial', { matrix: [0.6, 0, 0, 0.2, 0.5, 0.5] }),
      gradient('linear', { matrix: [0, 0, 0, 0, 0, 0] }),
    ].map((fillGradient, i): Part => [
      'ellipse',
      { dimensions: SIDE, position: at(i % 4, Math.floor(i / 4)), opacity: i % 3 === 2 ? 0.6 : 1, strokeWidth: 12 },
      { fillGradient, strokeGradient: i % 2 ? fillGradient : null },
    ]),
  ],
  [
    'strokes inside and outside, further paints, corners of their own',
    [
      [style({ position: 'inside' }), []],
      [style({ position: 'outside', join: 'miter' }), []],
      [ROUND_STROKE, [paint('a', { width: 2 }), paint('b', { use: 'fill', gradient: gradient('conic') })]],
      [style({ position: 'outside' }), [paint('c', { style: style({ position: 'inside', dash: [6, 4] }), width: 8 })]],
    ].map(([strokeStyle, paints], i): Part => [
      'rectangle',
      {
        dimensions: SIDE,
        position: at(i, 0),
        fill: '#3b6fd480',
        stroke: '#ffb74a',
        strokeWidth: 9,
        cornerRadius: 24,
        opacity: i === 3 ? 0.7 : 1,
      },
      { strokeStyle, paints, corners: [1, 0.5, 0, i / 4] },
      i === 2 ? 'screen' : undefined,
    ]),
  ],
  [
    'copies in a line, a grid and a circle, and a plate that hugs turned words',
    [
      ...(['line', 'grid', 'circle'] as const).map((way, i): Part => [
        'figure',
        { dimensions: [30, 30], position: at(i, 0), fill: '#ff6f59' },
        { figure: 'star' },
        undefined,
        {
          repeat: {
            way,
            count: 7,
            columns: 3,
            step: [26, 24],
            radius: 40,
            turn: 12,
            scale: 0.95,
            fade: 0.9,
            delay: { unit: 'seconds', value: 0.01 },
          },
        } satisfies Partial<Layer>,
      ]),
      [
        'rectangle',
        { fill: '#143749', cornerRadius: 8 },
        {},
        undefined,
        { hug: { layerId: 'hugged', padX: 14, padY: 10, axes: 'both' } },
      ],
      [
        'text',
        { size: 44, position: [60, 70], rotation: -8, fill: '#ffb74a' },
        { text: 'Nine days', family: 'bricolage-grotesque' },
        undefined,
        { id: 'hugged' },
      ],
    ],
  ],
];
