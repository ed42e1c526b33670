import { createHash } from 'node:crypto';
import { createCanvas } from '@napi-rs/canvas';
import { zipPiece } from '../../tests/helpers/piece-file';
import { BLEND_MODE_IDS, createLayer, createPiece } from '@core/piece';
import type { Layer, LayerKind, MediaRef, Piece, PropertyId } from '@core/piece';
import { newGestureUse } from '@core/motion';
import type { GestureId, GestureUse, TrackValue } from '@core/motion';
import { FRAME_RATES, freeMoment } from '@core/time';
import { COMPOSITION_SCENES, INNER_FILE, INNER_MEDIA } from './parity-composition';
import { EFFECT_SCENES } from './parity-effects';
import { SCRIPT_SCENES } from './parity-scripts';
import { SHAPE_SCENES } from './parity-shapes';
import { countingIds } from '../../tests/helpers/documents';
import { makeFont, toWoff } from '../../tests/helpers/make-font';

const KITE = 'M100 0L200 110L100 280L0 110Z';
const WAVE = 'M0 60C160 10 320 0 480 40C640 80 800 90 960 50L960 200L0 200Z';

/** A photograph-like picture: soft noise over a gradient, so that scaling shows. */
function testPicture(): Uint8Array {
  const canvas = createCanvas(300, 200);
  const g = canvas.getContext('2d');
  const data = g.createImageData(300, 200);
  let seed = 7;
  for (let i = 0; i < 300 * 200; i++) {
    seed = (seed * 16807) % 2147483647;
    data.data[i * 4] = (i % 300) * 0.7 + (seed % 60);
    data.data[i * 4 + 1] = Math.floor(i / 300) + (seed % 40);
    data.data[i * 4 + 2] = 200 - (seed % 90);
    data.data[i * 4 + 3] = 255;
  }
  g.putImageData(data, 0, 0);
  return new Uint8Array(canvas.toBuffer('image/png'));
}

export type Part = readonly [
  kind: LayerKind,
  values: Partial<Record<PropertyId, TrackValue>>,
  content?: Record<string, unknown> | undefined,
  blend?: Layer['blend'] | undefined,
  more?: Partial<Layer>,
];
const text = (
  words: string,
  values: Partial<Record<PropertyId, TrackValue>>,
  content: Record<string, unknown> = {},
): Part => ['text', { size: 90, ...values }, { text: words, family: 'bricolage-grotesque', ...content }];

/** A gesture that is half done when its scene's frame is taken. */
const midway = (gesture: GestureId, more: Partial<GestureUse> = {}): GestureUse => ({
  ...newGestureUse(gesture, 'entrance', 'g'),
  duration: { unit: 'seconds', value: 1 },
  ...more,
});
const acting = (words: string, y: number, gesture: GestureId, more: Partial<GestureUse> = {}): Part => [
  'text',
  { size: 70, position: [0, y] },
  { text: words, family: 'bricolage-grotesque' },
  undefined,
  { gestures: [midway(gesture, more)] },
];

const OWN_SCENES: readonly (readonly [name: string, parts: readonly Part[]])[] = [
  [
    'plain shapes',
    [
      ['rectangle', { dimensions: [300, 120], position: [-80, 20] }],
      ['ellipse', { dimensions: [140, 140], fill: '#54c6c0', position: [150, -40] }],
    ],
  ],
  [
    'linear gradients at angles',
    [
      [
        'rectangle',
        { dimensions: [640, 360], fill: '#143749', fillEnd: '#5a2f46', gradientAngle: 33 },
        { gradient: 'linear' },
      ],
      [
        'rectangle',
        { dimensions: [200, 90], fill: '#ffb74a', fillEnd: '#ff6f5900', gradientAngle: 120, rotation: 14 },
        { gradient: 'linear' },
      ],
    ],
  ],
  [
    'radial gradients with alpha',
    [
      ['ellipse', { dimensions: [330, 330], fill: '#ffb74aff', fillEnd: '#ffb74a00' }, { gradient: 'radial' }],
      [
        'rectangle',
        { dimensions: [120, 200], position: [200, 0], fill: '#ffffff80', fillEnd: '#54c6c0' },
        { gradient: 'radial' },
      ],
    ],
  ],
  [
    'rounded corners and strokes',
    [
      [
        'rectangle',
        { dimensions: [260, 140], cornerRadius: 34, stroke: '#ffb74a', strokeWidth: 7, position: [-140, 0] },
      ],
      [
        'ellipse',
        { dimensions: [160, 110], stroke: '#ff6f59', strokeWidth: 3, fill: '#00000000', position: [150, 10] },
      ],
    ],
  ],
  [
    'drawn shapes, stretched and turned',
    [
      [
        'path',
        { dimensions: [150, 260], fill: '#ff6f59', rotation: 21, stroke: '#fff3df', strokeWidth: 4 },
        { d: KITE, box: [200, 280] },
      ],
      ['path', { dimensions: [640, 120], position: [0, 130], fill: '#0d2735cc' }, { d: WAVE, box: [960, 200] }],
    ],
  ],
  [
    'text, weights and tracking',
    [
      text('Nine days', { weight: 800, position: [0, -70] }),
      text('of wind', { weight: 250, tracking: 0.12, position: [0, 60], size: 70 }),
    ],
  ],
  [
    'text with an outline at half opacity',
    [
      ['rectangle', { dimensions: [640, 90], fill: '#54c6c0' }],
      text('Kite Week', { stroke: '#11151b', strokeWidth: 6, opacity: 0.5 }),
    ],
  ],
  [
    'other scripts',
    [
      text('أسبوع الطائرات', { size: 60, position: [0, -110] }),
      text('שבוע עפיפונים', { size: 60, position: [0, -30] }),
      text('पतंग सप्ताह', { size: 60, position: [0, 50] }),
      text('風の九日間', { size: 60, position: [0, 130] }),
    ],
  ],
  [
    'other faces, italic, gradient letters',
    [
      text(
        'Question',
        { size: 80, position: [0, -90], fillEnd: '#ff6f59' },
        { family: 'fraunces', italic: true, gradient: 'linear' },
      ),
      text('the wind', { size: 70, position: [0, 10] }, { family: 'caveat' }),
      text('PUERTO', { size: 60, position: [0, 110] }, { family: 'unbounded' }),
    ],
  ],
  [
    'wrapped lines, aligned right',
    [
      text(
        'a kite is a question you ask the wind',
        { size: 44, position: [250, 0] },
        { wrapWidth: 380, align: 'right' },
      ),
    ],
  ],
  [
    'pictures: scaled, turned, rounded, faint',
    [
      ['picture', { dimensions: [420, 280], position: [-60, 0] }, { mediaId: 'picture' }],
      [
        'picture',
        { dimensions: [130, 110], position: [210, -60], rotation: -17, cornerRadius: 22, opacity: 0.7 },
        { mediaId: 'picture' },
      ],
    ],
  ],
  [
    'pictures that fill their frames: by their focus, enlarged, rounded, turned',
    [
      [
        'picture',
        { dimensions: [200, 340], position: [-190, 0], focus: [0.85, 0.5] },
        { mediaId: 'picture', fit: 'fill' },
      ],
      [
        'picture',
        { dimensions: [330, 150], position: [130, -90], focus: [0.2, 0.1], pictureZoom: 1.7, cornerRadius: 30 },
        { mediaId: 'picture', fit: 'fill' },
      ],
      [
        'picture',
        { dimensions: [160, 160], position: [150, 100], rotation: 24, opacity: 0.8, blur: 2 },
        { mediaId: 'picture', fit: 'fill' },
      ],
    ],
  ],
  [
    'blend modes',
    [
      [
        'rectangle',
        { dimensions: [640, 360], fill: '#143749', fillEnd: '#ffb74a', gradientAngle: 0 },
        { gradient: 'linear' },
      ],
      ...BLEND_MODE_IDS.map((blend, i): Part => [
        'ellipse',
        { dimensions: [90, 200], position: [-270 + i * 67, 0], fill: '#c05a80' },
        {},
        blend,
      ]),
    ],
  ],
  [
    'blended, outlined and faint together',
    [
      ['rectangle', { dimensions: [640, 180], fill: '#5a2f46' }],
      [
        'rectangle',
        {
          dimensions: [200, 150],
          fill: '#ffb74a',
          stroke: '#54c6c0',
          strokeWidth: 14,
          opacity: 0.6,
          position: [40.5, 33.25],
          rotation: 8,
        },
        {},
        'screen',
      ],
    ],
  ],
  [
    'anchors, negative and uneven scale',
    [
      [
        'path',
        { dimensions: [120, 168], anchor: [0, -84], scale: [-1.4, 0.8], rotation: 30, fill: '#9ccb86' },
        { d: KITE, box: [200, 280] },
      ],
      text('mirror', { scale: [-1, 1], position: [0, 110], size: 60 }),
    ],
  ],
  [
    'gestures: slide, rise, burst, wipe',
    [
      acting('Meteor kites', -120, 'meteor'),
      acting('Horizon', -40, 'horizon'),
      acting('Nova burst', 40, 'nova'),
      acting('Eclipse wipes', 120, 'eclipse'),
    ],
  ],
  [
    'gestures: drawn outlines, scattered, blurred, weighed',
    [
      acting('Filament', -120, 'filament'),
      acting('gather', -40, 'constellation'),
      acting('Mist', 40, 'mist'),
      acting('waxing', 120, 'waxing'),
    ],
  ],
  [
    'gestures: typed, scrambled, counted, tinted',
    [
      acting('typed wind', -120, 'beacon'),
      acting('Static', -40, 'static'),
      acting('12,500 kites', 40, 'altimeter'),
      acting('Ember', 120, 'ember'),
    ],
  ],
  [
    'gestures on a shape and a picture',
    [
      [
        'rectangle',
        { dimensions: [180, 120], position: [-180, 0], fill: '#ffb74a' },
        {},
        undefined,
        { gestures: [midway('eclipse')] },
      ],
      [
        'ellipse',
        { dimensions: [120, 120], position: [0, 0], fill: '#54c6c0', stroke: '#ffffff', strokeWidth: 5 },
        {},
        undefined,
        { gestures: [midway('mist')] },
      ],
      [
        'picture',
        { dimensions: [180, 120], position: [190, 0] },
        { mediaId: 'picture' },
        undefined,
        { gestures: [midway('eclipse')] },
      ],
    ],
  ],
  [
    'dress: band, shadow, rule',
    [
      text(
        'hugging band',
        { size: 60, position: [0, -90], fill: '#11151b' },
        { dress: { band: { per: 'word', colour: '#ffb74a', padX: 0.2, padY: 0.2, radius: 0.1 } } },
      ),
      text(
        'drop shadow',
        { size: 60 },
        {
          dress: {
            shadow: { colour: '#000000b0', x: 0.06, y: 0.08, blur: 0.06 },
            rule: { kind: 'under', colour: '#ff6f59', thickness: 0.08 },
          },
        },
      ),
      text(
        'marker',
        { size: 60, position: [0, 100], reveal: 0.7 },
        { dress: { rule: { kind: 'marker', colour: '#54c6c0', thickness: 0.5 } } },
      ),
    ],
  ],
  [
    'dress: long shadow, glow, outlines',
    [
      text(
        'LONG',
        { size: 100, position: [-130, -60], fill: '#ffb74a' },
        { dress: { long: { colour: '#5a2f46', angle: 45, length: 0.6 } } },
      ),
      text('glow', { size: 90, position: [150, -60] }, { dress: { glow: { colour: '#54c6c0', radius: 0.15 } } }),
      text(
        'outlines',
        { size: 80, position: [0, 100], strokeWidth: 4, opacity: 0.8 },
        {
          dress: {
            outlines: [
              { colour: '#ffb74a', width: 0.06 },
              { colour: '#ff6f59', width: 0.06 },
            ],
          },
        },
      ),
    ],
  ],
  [
    'mixed styles filling a place',
    [
      text(
        'nine days of WIND over the harbour',
        { size: 300 },
        {
          area: { x: 0.05, y: 0.08, width: 0.9, height: 0.84, valign: 'middle' },
          spans: [
            { start: 13, end: 17, colour: '#ffb74a', weight: 800, scale: 1.3 },
            { start: 0, end: 4, family: 'fraunces', italic: true },
          ],
        },
      ),
    ],
  ],
  [
    'motion blur, a trail, drawn strokes',
    [
      [
        'rectangle',
        { dimensions: [120, 60], fill: '#ffb74a', position: [-150, -90] },
        {},
        undefined,
        { motionBlur: 'on', gestures: [midway('orbit', { duration: { unit: 'seconds', value: 1.6 } })] },
      ],
      [
        'ellipse',
        { dimensions: [70, 70], fill: '#54c6c0', position: [150, -60] },
        {},
        undefined,
        { trail: { copies: 6, spacing: 0.05, fade: 0.7 }, gestures: [midway('gravity')] },
      ],
      [
        'path',
        {
          dimensions: [200, 140],
          position: [0, 100],
          fill: '#00000000',
          stroke: '#ff6f59',
          strokeWidth: 8,
          drawStart: 0.1,
          drawEnd: 0.65,
          drawOffset: 0.1,
        },
        { d: KITE, box: [200, 280] },
      ],
    ],
  ],
  [
    'slanted, blurred, small capitals',
    [
      text('slanted', { skew: 24, size: 80, position: [0, -100] }),
      text(
        'out of focus',
        { blur: 3, size: 70 },
        { dress: { shadow: { colour: '#000000', x: 0.1, y: 0.1, blur: 0 } } },
      ),
      text('small capitals', { size: 60, position: [0, 110] }, { family: 'fraunces', letterCase: 'small' }),
    ],
  ],
  [
    'axes of fonts',
    [
      text(
        'Leaning brush',
        { size: 70, position: [0, -120], weight: 700, lean: 12, axisB: 1 },
        { family: 'recursive' },
      ),
      text('Optical sizes', { size: 60, position: [0, -40], opticalSize: 9, axisA: 0.5 }, { family: 'fraunces' }),
      text('narrow letters', { size: 60, position: [0, 40], letterWidth: 78 }),
      text('الميناء', { size: 60, position: [0, 120], letterWidth: 70 }, { family: 'noto-sans-arabic' }),
    ],
  ],
  [
    'along an arc and a circle',
    [
      text(
        'over the harbour',
        { size: 44, position: [0, -100], bend: 70 },
        {
          along: { shape: 'arc' },
          dress: { band: { per: 'line', colour: '#143749', padX: 0.3, padY: 0.2, radius: 0 } },
        },
      ),
      text(
        'nine days of wind · ',
        { size: 34, position: [-120, 60], pathShift: 0.1 },
        { along: { shape: 'circle', radius: 90, inside: false } },
      ),
      text(
        'inside the ring',
        { size: 30, position: [160, 60] },
        { along: { shape: 'circle', radius: 100, inside: true } },
      ),
    ],
  ],
  [
    'along a path, moving',
    [
      [
        'text',
        { size: 50, position: [0, -40], pathShift: 0.02 },
        {
          text: 'letters ride the wave',
          family: 'bricolage-grotesque',
          along: { shape: 'path', d: 'M0 60C120 -60 200 180 320 60C440 -60 480 160 560 40', box: [560, 120] },
        },
        undefined,
        { gestures: [midway('nova')] },
      ],
      [
        'text',
        { size: 44, position: [0, 110], bend: -60 },
        { text: 'wiped words', family: 'bricolage-grotesque', along: { shape: 'arc' } },
        undefined,
        { gestures: [midway('eclipse', { unit: 'whole' }), midway('horizon', { id: 'h', unit: 'word' })] },
      ],
    ],
  ],
  [
    'pictures through letters, solid letters',
    [
      text(
        'HARBOUR',
        { size: 120, weight: 800, position: [0, -80], pictureZoom: 1.3, pictureShift: [0.05, -0.1] },
        { picture: 'picture' },
      ),
      text(
        'SOLID',
        { size: 110, weight: 800, position: [0, 80], fill: '#ffe2b0' },
        { dress: { solid: { colour: '#b8432e', far: '#5e1e17', angle: 50, depth: 0.2 } } },
      ),
    ],
  ],
  [
    'trimmed and standing on an edge',
    [
      text('Cap', { size: 80, position: [-200, 0] }, { trim: 'capitals', stands: 'bottom' }),
      text('xgx', { size: 80, position: [0, 0] }, { trim: 'small', stands: 'top' }),
      text('full', { size: 80, position: [200, 0] }, { trim: 'full', stands: 'top' }),
      ['rectangle', { dimensions: [640, 2], fill: '#ff6f59' }],
    ],
  ],
  [
    'a font of its own',
    [
      text('Lumo Block', { size: 90, weight: 400, position: [0, -60] }, { family: 'own:Lumo Block' }),
      text('Bold 27 é', { size: 90, weight: 800, position: [0, 70] }, { family: 'own:Lumo Block' }),
    ],
  ],
  [
    'a group, moved, turned and faded as one',
    [
      ['rectangle', { dimensions: [200, 120], position: [-60, 0], fill: '#54c6c0' }, {}, undefined, { parentId: 'ga' }],
      ['ellipse', { dimensions: [140, 140], position: [40, 10], fill: '#ff6f59' }, {}, undefined, { parentId: 'ga' }],
      [
        'group',
        { position: [-80, -20], anchor: [-20, 0], rotation: 14, scale: [1.2, 1.2], opacity: 0.6 },
        {},
        undefined,
        { id: 'ga' },
      ],
    ],
  ],
  [
    'groups in groups, blended, blurred and with a gesture',
    [
      ['rectangle', { dimensions: [640, 360], fill: '#143749', fillEnd: '#5a2f46' }, { gradient: 'linear' }],
      [...text('Nine days', { size: 70, position: [0, -50] }), undefined, { parentId: 'gc' }] as unknown as Part,
      [
        'picture',
        { dimensions: [150, 100], position: [60, 50] },
        { mediaId: 'picture' },
        undefined,
        { parentId: 'gc' },
      ],
      ['group', { rotation: -8, blur: 3, skew: 6 }, {}, 'screen', { id: 'gc', parentId: 'gb' }],
      [
        'ellipse',
        { dimensions: [90, 90], position: [-200, 80], fill: '#ffb74a' },
        {},
        'multiply',
        { parentId: 'gb', motionBlur: 'on', gestures: [midway('meteor')] },
      ],
      ['group', { scale: [0.9, 1.1], position: [10, 0] }, {}, undefined, { id: 'gb', gestures: [midway('nova')] }],
    ],
  ],
  [
    'a group that a soft edge wipes across, with a trail',
    [
      ['rectangle', { dimensions: [260, 90], fill: '#ffb74a' }, {}, undefined, { parentId: 'gd' }],
      [...text('of wind', { size: 60, fill: '#11151b' }), undefined, { parentId: 'gd' }] as unknown as Part,
      [
        'group',
        { position: [0, 30] },
        {},
        undefined,
        {
          id: 'gd',
          trail: { copies: 2, spacing: 0.05, fade: 0.5 },
          gestures: [midway('eclipse'), { ...midway('aurora'), id: 'm2' }],
        },
      ],
    ],
  ],
];
/** One scene a second; together they use everything the painter can draw. */
const SCENES = [...OWN_SCENES, ...EFFECT_SCENES, ...SHAPE_SCENES, ...COMPOSITION_SCENES, ...SCRIPT_SCENES];
export const SCENE_NAMES = SCENES.map(([name]) => name);

/** The piece of all scenes, one a second, and its files by hash. */
export function parityPiece(): { piece: Piece; files: Map<string, Uint8Array> } {
  const ids = countingIds('p');
  const base = createPiece(
    { name: 'Parity', formats: [{ id: 'wide', name: 'Wide', width: 640, height: 360 }], frameRate: FRAME_RATES['30'] },
    ids,
  );
  const png = testPicture();
  const hashOf = (content: Uint8Array) => createHash('sha256').update(content).digest('hex');
  const hash = hashOf(png);
  // One plain and one packed, as they come.
  const fonts = [
    makeFont({ family: 'Lumo Block', style: 'Regular', weight: 400 }),
    toWoff(makeFont({ family: 'Lumo Block', style: 'Bold', weight: 700 })),
  ];
  const fontRefs = fonts.map((content, i): MediaRef => ({
    id: `font${i}`,
    hash: hashOf(content),
    kind: 'font',
    name: `lumo${i}`,
    font: {
      family: 'Lumo Block',
      style: i ? 'Bold' : 'Regular',
      italic: false,
      weights: i ? [700, 700] : [400, 400],
      axes: [],
      ranges: [32, 32, 48, 57, 65, 90, 97, 122],
    },
  }));
  const layers = SCENES.flatMap(([name, parts], scene) =>
    parts.map(([kind, values, content, blend, more]) => {
      const layer = createLayer(
        kind,
        { name, start: freeMoment(scene), end: freeMoment(scene + 1), values, ...(content ? { content } : {}) },
        ids,
      );
      if (blend) layer.blend = blend;
      return { ...layer, ...more } as Layer; // what is added fits any kind
    }),
  );
  const piece: Piece = {
    ...base,
    end: freeMoment(SCENES.length),
    layers,
    media: [
      { id: 'picture', hash, kind: 'picture', name: 'harbour.png', width: 300, height: 200 },
      ...fontRefs,
      INNER_MEDIA,
    ],
  };
  return {
    piece,
    files: new Map([
      [hash, png],
      [INNER_MEDIA.hash, INNER_FILE],
      ...fonts.map((content) => [hashOf(content), content] as const),
    ]),
  };
}

export function parityPieceFile(): Uint8Array {
  const { piece, files } = parityPiece();
  return zipPiece(piece, files);
}
