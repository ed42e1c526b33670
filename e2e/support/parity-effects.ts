import { EFFECT_KINDS } from '@core/piece';
import type { Effect, EffectKind, Layer, Mask } from '@core/piece';
import type { Part } from './parity-piece';

/** Scenes with every effect, with masks and with mattes, for the comparison of browser and server. */

const KINDS = Object.keys(EFFECT_KINDS) as EffectKind[];
/** Effects that are seen in one scene. */
const AT_ONCE = 4;
const PLACES: readonly (readonly [number, number])[] = [
  [-160, -85],
  [160, -85],
  [-160, 85],
  [160, 85],
];
/** Where a kind begins with nothing to see. */
const SEEN: Partial<Record<EffectKind, Record<string, number>>> = {
  blur: { radius: 9 },
  levels: { brightness: 12, contrast: 45 },
};

const still = (value: number | [number, number]) => ({ value, keyframes: [] });
const effect = (kind: EffectKind, seed: number): Effect => ({
  id: kind,
  kind,
  isOn: true,
  seed,
  parameters: Object.fromEntries(Object.entries(SEEN[kind] ?? {}).map(([id, value]) => [id, still(value)])),
});

function effectScene(kinds: readonly EffectKind[], first: number): readonly [string, readonly Part[]] {
  const parts = kinds.flatMap((kind, i): Part[] => {
    const position = PLACES[i % PLACES.length]!; // i % 4
    const isPicture = (first + i) % 3 === 0;
    const id = `fx${first + i}`;
    const under: Partial<Layer> = { parentId: id };
    const group: Part = ['group', {}, {}, undefined, { id, effects: [effect(kind, i + 3)] }];
    const picture: Part = ['picture', { dimensions: [200, 120], position: [...position] }, { mediaId: 'picture' }];
    const ellipse: Part = [
      'ellipse',
      { dimensions: [180, 110], position: [...position], fill: '#ff6f59', fillEnd: '#ffb74a' },
      { gradient: 'linear' },
    ];
    const [flagKind, values, content] = isPicture ? picture : ellipse;
    const flag: Part = [flagKind, values, content, undefined, under];
    const words: Part = [
      'text',
      { size: 56, position: [position[0], position[1] + 10], fill: '#3b6fd4' },
      { text: 'Kites', family: 'bricolage-grotesque' },
      undefined,
      under,
    ];
    return [flag, words, group];
  });
  return [`effects: ${kinds.join(', ')}`, parts];
}

const mask = (
  id: string,
  mode: Mask['mode'],
  box: [number, number],
  tracks: Mask['tracks'],
  inverted = false,
): Mask => ({
  id,
  name: id,
  mode,
  inverted,
  d: `M0 0L${box[0]} 0L${box[0]} ${box[1]}L0 ${box[1]}Z`,
  box,
  rule: 'nonzero',
  forms: [],
  tracks,
});

export const EFFECT_SCENES: readonly (readonly [string, readonly Part[]])[] = [
  ...Array.from({ length: Math.ceil(KINDS.length / AT_ONCE) }, (_, i) =>
    effectScene(KINDS.slice(i * AT_ONCE, (i + 1) * AT_ONCE), i * AT_ONCE),
  ),
  [
    'masks: added, taken away, met, feathered and grown',
    [
      [
        'picture',
        { dimensions: [560, 300] },
        { mediaId: 'picture' },
        undefined,
        {
          masks: [
            mask('a', 'add', [300, 200], { position: still([-60, 0]), feather: still(12), rotation: still(14) }),
            mask('b', 'subtract', [80, 80], { position: still([-80, 20]), expansion: still(10) }),
            mask('c', 'add', [120, 120], { position: still([170, 40]), opacity: still(0.6) }),
            mask('d', 'intersect', [40, 400], { position: still([0, 0]) }, true),
          ],
        },
      ],
    ],
  ],
  [
    'mattes: by opacity and by brightness, inverted, with a shadow about what is seen',
    [
      [
        'text',
        { size: 120, position: [0, -60] },
        { text: 'Harbour', family: 'bricolage-grotesque' },
        undefined,
        { id: 'mt1' },
      ],
      [
        'picture',
        { dimensions: [560, 200], position: [0, -70] },
        { mediaId: 'picture' },
        undefined,
        { matte: { layerId: 'mt1', channel: 'alpha', inverted: false }, effects: [effect('shadow', 1)] },
      ],
      [
        'ellipse',
        { dimensions: [500, 140], position: [0, 90], fill: '#ffffff', fillEnd: '#000000' },
        { gradient: 'linear' },
        undefined,
        { id: 'mt2' },
      ],
      [
        'rectangle',
        { dimensions: [560, 150], position: [0, 90], fill: '#ffb74a' },
        {},
        'screen',
        { matte: { layerId: 'mt2', channel: 'luminance', inverted: true }, gestures: [] },
      ],
    ],
  ],
  [
    'looks: half over the frame, whole within a group, blurred by a mask',
    [
      ['picture', { dimensions: [420, 260], position: [-90, 0] }, { mediaId: 'picture' }],
      ['look', { opacity: 0.6 }, {}, undefined, { effects: [effect('duotone', 2), effect('wave', 3)] }],
      ['ellipse', { dimensions: [170, 170], position: [190, -60], fill: '#ff6f59' }, {}, undefined, { parentId: 'lk' }],
      ['look', {}, {}, undefined, { parentId: 'lk', effects: [effect('halftone', 4)] }],
      ['group', {}, {}, undefined, { id: 'lk' }],
      [
        'look',
        {},
        {},
        undefined,
        {
          effects: [effect('blur', 1)],
          masks: [mask('lm', 'add', [300, 160], { position: still([60, 60]), feather: still(10) })],
        },
      ],
    ],
  ],
  [
    'forms on their way, and a group that plays again backwards',
    [
      [
        'path',
        { dimensions: [200, 200], position: [-150, 0], fill: '#ffb74a', stroke: '#eee9df', strokeWidth: 6, form: 0.4 },
        {
          d: 'M100 0Q160 60 200 100L100 200L0 100Z',
          box: [200, 200],
          forms: [{ id: 'fm', name: 'Form 1', d: 'M0 60L100 0L200 60L160 200L40 200ZM80 80L80 130L120 130L120 80Z' }],
        },
      ],
      [
        'rectangle',
        { dimensions: [120, 80], position: [150, 0], fill: '#54c6c0' },
        {},
        undefined,
        {
          parentId: 'tg',
          tracks: {
            rotation: {
              value: 0,
              keyframes: [
                { id: 'k1', at: { kind: 'free', seconds: 0 }, value: 0, easing: { type: 'linear' } },
                { id: 'k2', at: { kind: 'free', seconds: 600 }, value: 36_000, easing: { type: 'linear' } },
              ],
            },
          },
        },
      ],
      [
        'group',
        {},
        { time: { speed: 0.7, repeat: { unit: 'seconds', value: 0.6 }, turns: true, freeze: null } },
        undefined,
        { id: 'tg' },
      ],
    ],
  ],
];
