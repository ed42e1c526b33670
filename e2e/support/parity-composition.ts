import { createHash } from 'node:crypto';
import { createLayer, createPiece, writeWithin } from '@core/piece';
import type { Effect, Layer, MediaRef } from '@core/piece';
import { FRAME_RATES, freeMoment } from '@core/time';
import { countingIds } from '../../tests/helpers/documents';
import type { Part } from './parity-piece';

/** Scenes of layers that hold others: one shape of several, pieces within, echoes, ways, masks of several forms. */

const still = (value: number | [number, number]) => ({ value, keyframes: [] });
const linear = { type: 'linear' as const };
/** From one value at the beginning to another a hundred seconds later: scenes stand a second each, anywhere in between. */
const onTheWay = (
  from: number | [number, number],
  to: number | [number, number],
): NonNullable<Layer['tracks']['position']> => ({
  value: from,
  keyframes: [
    { id: 'k1', at: freeMoment(0), value: from, easing: linear },
    { id: 'k2', at: freeMoment(100), value: to, easing: linear },
  ],
});
const effect = (kind: Effect['kind'], values: Record<string, number>): Effect => ({
  id: kind,
  kind,
  isOn: true,
  seed: 5,
  parameters: Object.fromEntries(Object.entries(values).map(([id, value]) => [id, still(value)])),
});

function innerFile(): Uint8Array {
  const ids = countingIds('in');
  const base = createPiece(
    {
      name: 'Within',
      formats: [
        { id: 'wide', name: 'Wide', width: 640, height: 360 },
        { id: 'square', name: 'Square', width: 400, height: 400 },
      ],
      frameRate: FRAME_RATES['30'],
    },
    ids,
  );
  const span = { start: freeMoment(0), end: freeMoment(600) };
  const layers = [
    createLayer(
      'ellipse',
      { name: 'Sun', ...span, values: { dimensions: [260, 260], position: [140, -40], fill: '#ffb74a' } },
      ids,
    ),
    createLayer(
      'text',
      {
        name: 'Words',
        ...span,
        content: { text: 'Puerto Lumo', family: 'fraunces' },
        values: { size: 84, position: [0, 60] },
      },
      ids,
    ),
    createLayer('look', { name: 'Look', ...span }, ids),
  ];
  layers[2]!.effects = [effect('grain', { amount: 30 })];
  const piece = { ...base, layers, end: freeMoment(600), background: { value: '#1d4f5c', keyframes: [] } };
  return new TextEncoder().encode(writeWithin({ piece, analysis: null }));
}
export const INNER_FILE = innerFile();
export const INNER_MEDIA: MediaRef = {
  id: 'inner',
  hash: createHash('sha256').update(INNER_FILE).digest('hex'),
  kind: 'piece',
  name: 'Within',
};

const combined = (id: string, combine: string, at: [number, number], fill: string): Part[] => [
  [
    'rectangle',
    { dimensions: [200, 110], position: at, fill, cornerRadius: 18, stroke: '#eee9df', strokeWidth: 3 },
    {},
    undefined,
    { parentId: id },
  ],
  ['ellipse', { dimensions: [110, 110], position: [at[0] + 70, at[1] + 20] }, {}, undefined, { parentId: id }],
  [
    'text',
    { size: 60, position: [at[0] - 30, at[1]] },
    { text: 'Kite', family: 'bricolage-grotesque' },
    undefined,
    { parentId: id },
  ],
  ['group', {}, { combine }, undefined, { id }],
];

export const COMPOSITION_SCENES: readonly (readonly [string, readonly Part[]])[] = [
  [
    'one shape of plate, circle and words: union, subtract, intersect, exclude',
    [
      ...combined('cu', 'union', [-160, -90], '#ffb74a'),
      ...combined('cs', 'subtract', [150, -90], '#54c6c0'),
      ...combined('ci', 'intersect', [-160, 90], '#ff6f59'),
      ...combined('ce', 'exclude', [150, 90], '#9ccb86'),
    ],
  ],
  [
    'a piece within: over the frame, and small, turned, half there, with its background and a glow',
    [
      ['piece', { dimensions: [640, 360] }, { pieceId: 'within', mediaId: 'inner', from: 2 }],
      [
        'piece',
        { dimensions: [260, 200], position: [-150, 60], rotation: 14, opacity: 0.6 },
        { pieceId: 'within', mediaId: 'inner', showsGround: true },
        undefined,
        { effects: [effect('glow', { radius: 14 })] },
      ],
    ],
  ],
  [
    'an echo of words that move and turn with their way',
    [
      [
        'text',
        { size: 70 },
        { text: 'Wind', family: 'bricolage-grotesque' },
        undefined,
        {
          tracks: {
            size: still(70),
            position: onTheWay([-19_800, -3300], [20_200, 3367]),
            rotation: onTheWay(0, 5000),
          },
          travel: { turns: true, isEven: true },
          effects: [effect('tint', { amount: 80 }), effect('echo', { copies: 4, apart: 0.15, keeps: 70 })],
        },
      ],
    ],
  ],
  [
    'a mask on its way between two forms',
    [
      [
        'picture',
        { dimensions: [400, 260] },
        { mediaId: 'picture' },
        undefined,
        {
          masks: [
            {
              id: 'mf',
              name: 'Mask',
              mode: 'add',
              inverted: false,
              rule: 'nonzero',
              d: 'M0 0L300 0L300 200L0 200Z',
              box: [300, 200],
              forms: [{ id: 'mf1', name: 'Form 1', d: 'M150 0Q300 60 280 200L20 200Q0 60 150 0Z' }],
              tracks: { form: still(0.6), feather: still(6) },
            },
          ],
        },
      ],
    ],
  ],
];
