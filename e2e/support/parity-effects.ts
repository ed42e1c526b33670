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
];
