import { constantTrack, createMusic, createPiece } from '@core/piece';
import type { Layer, MediaRef, Piece } from '@core/piece';
import { FRAME_RATES } from '@core/time';
import { beat, createComposer, even, glide, leave, rise, settle, sway } from '@core/templates';
import { landed } from './landed';
import type { Keys } from '@core/templates';

const PAPER = '#fff3df';
const LAMP = '#ffb74a';
const EMBER = '#ff6f59';
const DEEP = '#143749';
const DUSK = '#5a2f46';

const KITE = {
  box: [200, 280] as [number, number],
  left: 'M100 0L0 110L100 280Z',
  right: 'M100 0L200 110L100 280Z',
  brow: 'M100 0L200 110L100 110Z',
};
export const SWELL =
  'M0 60C160 10 320 0 480 40C640 80 800 90 960 50C1120 10 1280 0 1440 40C1600 80 1760 70 1920 30L1920 400L0 400Z';
const STRING = 'M70 0C110 60 20 130 44 210C64 280 130 300 92 400';

/** Where the lights of the shore stand, and how large they are: pixels from the middle of the wide frame. */
const LAMPS = [
  [-470, 20],
  [-330, 14],
  [-120, 24],
  [90, 16],
  [270, 22],
  [420, 14],
] as const;

export const DEMO_FORMATS = {
  wide: { id: 'wide', name: 'Wide', width: 1920, height: 1080 },
  tall: { id: 'tall', name: 'Tall', width: 1080, height: 1920 },
  square: { id: 'square', name: 'Square', width: 1080, height: 1080 },
} as const;

/** An empty piece with the song, which fades out in so many seconds. */
export const pieceBase = (
  id: string,
  name: string,
  formats: readonly (keyof typeof DEMO_FORMATS)[],
  media: MediaRef,
  fadeOut: number,
): Piece => ({
  ...createPiece(
    { name, formats: formats.map((format) => DEMO_FORMATS[format]), frameRate: FRAME_RATES['30'] },
    () => id,
  ),
  media: [media],
  music: { ...createMusic(media), fadeOut },
});

/** The opening title: "Nine days of wind", wide, with tall and square arrangements. */
export function openingTitle(media: MediaRef): Piece {
  const make = createComposer();
  const flight: Keys = {
    position: [
      [6, [760, 520], glide],
      [8, [560, -120], sway],
      [12, [500, -170], sway],
      [16, [590, -140], sway],
      [20, [520, -190], sway],
      [24, [640, -190], sway],
      [28, [620, -300], leave],
      [31, [900, -760]],
    ],
    rotation: [
      [6, 40, glide],
      [8, 18, sway],
      [12, 26, sway],
      [16, 12, sway],
      [20, 24, sway],
      [24, 14, sway],
      [28, 20, leave],
      [31, 60],
    ],
    scale: [
      [6, [0.5, 0.5], settle],
      [8, [1.25, 1.25], rise],
      [16, [1.36, 1.36], rise],
      [17, [1.25, 1.25]],
    ],
  };
  const tallKite = {
    tall: { move: [-250, -350] as [number, number], scale: 1.75, hidden: false },
    square: { move: [10, -150] as [number, number], scale: 1.15, hidden: false },
  };
  const kitePart = (name: string, d: string, fill: string): Layer =>
    make({
      kind: 'path',
      name,
      from: 6,
      to: 31,
      content: { d, box: KITE.box },
      values: { dimensions: KITE.box, fill },
      keys: flight,
      overrides: tallKite,
    });
  const word = (
    text: string,
    name: string,
    from: number,
    y: number,
    size: number,
    weight: number,
    fill: string,
    tall: [number, number],
    square: [number, number],
  ): Layer =>
    make({
      kind: 'text',
      name,
      from: from - 1,
      to: 25,
      content: { text, family: 'bricolage-grotesque', align: 'left' },
      values: { size, weight, fill, tracking: -0.015 },
      keys: {
        position: [
          [from - 1, [-790, y + 90], glide],
          [from, [-790, y]],
          [23.5, [-790, y], leave],
          [25, [-900, y]],
        ],
        opacity: [
          [from - 1, 0, even],
          [from - 0.4, 1],
          [24, 1, even],
          [25, 0],
        ],
        ...(from === 8
          ? ({
              scale: [
                [8, [1.08, 1.08], glide],
                [9, [1, 1]],
                [16, [1.06, 1.06], glide],
                [17, [1, 1]],
              ],
            } satisfies Keys)
          : {}),
      },
      overrides: {
        tall: { move: tall, scale: 1.36, hidden: false },
        square: { move: square, scale: 1.2, hidden: false },
      },
    });
  /** A light on the far shore, lit on its beat. */
  const lamp = (at: number, x: number, size: number): Layer =>
    make({
      kind: 'ellipse',
      name: `Shore lamp ${at + 1}`,
      from: at - 0.5,
      to: 60,
      values: { dimensions: [size, size], fill: LAMP, position: [x, 304] },
      keys: {
        scale: [
          [at - 0.5, [0, 0], rise],
          [at + 0.5, [1, 1]],
        ],
      },
      overrides: {
        tall: { move: [0, 522], scale: 1.5, hidden: false },
        square: { move: [0, 182], scale: 1.4, hidden: false },
      },
    });
  const layers: Layer[] = [
    make({
      kind: 'rectangle',
      name: 'Dusk sky',
      from: -4,
      to: 60,
      content: { gradient: 'linear' },
      values: { dimensions: [1920, 1080], fill: DEEP, fillEnd: DUSK, gradientAngle: 62 },
    }),
    make({
      kind: 'ellipse',
      name: 'Lamp glow',
      from: -4,
      to: 60,
      content: { gradient: 'radial' },
      values: { dimensions: [1500, 1500], fill: '#ffb74a99', fillEnd: '#ffb74a00', position: [330, -120] },
      keys: {
        opacity: [
          [7.5, 0.4, glide],
          [8, 1, { type: 'hold' }],
          [24, 1, sway],
          [25, 0.65],
        ],
      },
      overrides: { tall: { move: [-180, -300], scale: 1.7, hidden: false } },
    }),
    make({
      kind: 'path',
      name: 'Far water',
      from: -4,
      to: 60,
      content: { d: SWELL, box: [1920, 400] },
      values: { dimensions: [2400, 420], fill: '#0d2735cc', position: [0, 430] },
      keys: {
        position: [
          [0, [-120, 440], even],
          [32, [120, 410]],
        ],
      },
      overrides: {
        tall: { move: [0, 560], scale: 1.5, hidden: false },
        square: { move: [0, 220], scale: 1.4, hidden: false },
      },
    }),
    ...LAMPS.map(([x, size], i) => lamp(i, x, size)),
    make({
      kind: 'path',
      name: 'Near water',
      from: -4,
      to: 60,
      content: { d: SWELL, box: [1920, 400] },
      values: { dimensions: [2600, 360], fill: '#081a25', position: [0, 520] },
      keys: {
        position: [
          [0, [140, 525], even],
          [32, [-140, 505]],
        ],
      },
      overrides: {
        tall: { move: [0, 620], scale: 1.5, hidden: false },
        square: { move: [0, 260], scale: 1.4, hidden: false },
      },
    }),
    make({
      kind: 'path',
      name: 'String',
      from: 8,
      to: 29,
      content: { d: STRING, box: [140, 400] },
      values: {
        dimensions: [180, 560],
        fill: '#00000000',
        stroke: '#fff3dfcc',
        strokeWidth: 4,
        anchor: [0, -280],
        position: [500, 40],
      },
      keys: {
        position: [
          [8, [520, 30], sway],
          [12, [460, -20], sway],
          [16, [555, 15], sway],
          [20, [480, -40], sway],
          [24, [605, -40], sway],
          [28, [585, -145]],
        ],
        rotation: [
          [8, 10, sway],
          [12, 4, sway],
          [16, 12, sway],
          [20, 3, sway],
          [24, 10, sway],
          [28, 4],
        ],
        opacity: [
          [8, 0, glide],
          [9, 1],
          [28, 1, even],
          [29, 0],
        ],
      },
      overrides: tallKite,
    }),
    kitePart('Kite, shade', KITE.left, '#d94a55'),
    kitePart('Kite, light', KITE.right, EMBER),
    kitePart('Kite, brow', KITE.brow, LAMP),
    word('Nine days', 'Nine days', 8, -80, 250, 800, PAPER, [165, 125], [86, 45]),
    word('of wind', 'of wind', 12, 130, 210, 300, PAPER, [165, 145], [86, 64]),
    make({
      kind: 'rectangle',
      name: 'Underline',
      from: 15.5,
      to: 25,
      values: { dimensions: [560, 10], fill: LAMP, cornerRadius: 5, anchor: [-280, 0], position: [-780, 250] },
      keys: {
        scale: [
          [15.5, [0, 1], glide],
          [16, [1, 1]],
          [24, [1, 1], leave],
          [25, [0, 1]],
        ],
      },
      overrides: {
        tall: { move: [158, 172], scale: 1.36, hidden: false },
        square: { move: [84, 88], scale: 1.2, hidden: false },
      },
    }),
    make({
      kind: 'text',
      name: 'Kite Week',
      from: 25,
      to: 60,
      content: { text: 'Kite Week', family: 'bricolage-grotesque', align: 'center' },
      values: { size: 230, weight: 800, fill: PAPER, tracking: 0 },
      keys: {
        scale: [
          [25, [0.7, 0.7], settle],
          [26.5, [1, 1]],
          [28, [1.05, 1.05], glide],
          [29, [1, 1]],
        ],
        opacity: [
          [25, 0, even],
          [25.5, 1],
        ],
        tracking: [
          [25, 0.12, glide],
          [28, -0.02],
        ],
        position: [
          [25, [0, -40]],
          [32, [0, -40]],
        ],
      },
      overrides: { tall: { move: [0, -60], scale: 1.42, hidden: false } },
    }),
    make({
      kind: 'text',
      name: 'Puerto Lumo',
      from: 27.5,
      to: 60,
      content: { text: 'Puerto Lumo', family: 'spline-sans', align: 'center' },
      values: { size: 64, weight: 500, fill: LAMP, tracking: 0.18 },
      keys: {
        position: [
          [27.5, [0, 170], rise],
          [28, [0, 120]],
        ],
        opacity: [
          [27.5, 0, even],
          [28, 1],
        ],
      },
      overrides: { tall: { move: [0, -10], scale: 2.1, hidden: false } },
    }),
  ];
  const piece: Piece = {
    ...pieceBase('demo-nine-days', 'Nine days of wind', ['wide', 'tall', 'square'], media, 1),
    end: beat(32),
    background: constantTrack('#0f2430'),
    layers,
  };
  return landed(piece, 118, 0.2);
}

/** A quote card from a kite maker, tall, built up phrase by phrase. */
export function kiteMakersQuote(media: MediaRef): Piece {
  const make = createComposer();
  const squareWords = { square: { move: [-133, -40] as [number, number], scale: 1.2, hidden: false } };
  const squareSky = { square: { move: [140, 110] as [number, number], scale: 1.25, hidden: false } };
  const phrase = (text: string, at: number, y: number, size: number, weight: number, fill: string): Layer =>
    make({
      kind: 'text',
      name: text,
      from: at - 0.5,
      to: 33,
      content: { text, family: 'fraunces', align: 'left' },
      values: { size, weight, fill, tracking: -0.01 },
      keys: {
        position: [
          [at - 0.5, [-440, y + 60], glide],
          [at + 0.25, [-440, y]],
        ],
        opacity: [
          [at - 0.5, 0, even],
          [at, 1],
          [31, 1, even],
          [32.5, 0],
        ],
      },
      overrides: squareWords,
    });
  const layers: Layer[] = [
    make({
      kind: 'rectangle',
      name: 'Paper',
      from: -4,
      to: 40,
      content: { gradient: 'linear' },
      values: { dimensions: [1080, 1920], fill: '#f6f2ea', fillEnd: '#ecd9bd', gradientAngle: 75 },
    }),
    make({
      kind: 'ellipse',
      name: 'Sun',
      from: -4,
      to: 40,
      values: { dimensions: [620, 620], fill: LAMP, position: [200, -560] },
      keys: {
        scale: [
          [0, [0.9, 0.9], glide],
          [1, [1, 1]],
          [4, [1.04, 1.04], glide],
          [5, [1, 1]],
          [8, [1.04, 1.04], glide],
          [9, [1, 1]],
          [12, [1.04, 1.04], glide],
          [13, [1, 1]],
          [16, [1.04, 1.04], glide],
          [17, [1, 1]],
          [20, [1.04, 1.04], glide],
          [21, [1, 1]],
          [24, [1.04, 1.04], glide],
          [25, [1, 1]],
        ],
      },
      overrides: squareSky,
    }),
    make({
      kind: 'path',
      name: 'Kite',
      from: 0,
      to: 40,
      content: { d: `${KITE.left}${KITE.right}`, box: KITE.box, gradient: 'linear' },
      values: { dimensions: [220, 308], fill: EMBER, fillEnd: '#b93a52', gradientAngle: 0, rotation: 14 },
      keys: {
        position: [
          [0, [420, -260], glide],
          [4, [210, -540], sway],
          [12, [270, -580], sway],
          [20, [200, -520], sway],
          [28, [260, -590], leave],
          [33, [420, -1100]],
        ],
        rotation: [
          [0, 50, glide],
          [4, 12, sway],
          [12, 22, sway],
          [20, 8, sway],
          [28, 18],
        ],
      },
      overrides: squareSky,
    }),
    make({
      kind: 'path',
      name: 'String',
      from: 4,
      to: 29,
      content: { d: STRING, box: [140, 400] },
      values: { dimensions: [150, 340], fill: '#00000000', stroke: '#3a2b2499', strokeWidth: 3, anchor: [0, -170] },
      keys: {
        position: [
          [4, [175, -405], sway],
          [12, [220, -445], sway],
          [20, [180, -380], sway],
          [28, [215, -455]],
        ],
        rotation: [
          [4, 8, sway],
          [12, 14, sway],
          [20, 4, sway],
          [28, 10],
        ],
        opacity: [
          [4, 0, even],
          [5, 1],
          [28, 1, even],
          [29, 0],
        ],
      },
      overrides: squareSky,
    }),
    phrase('A kite is', 4, -150, 150, 400, '#2a2320'),
    phrase('a question', 8, 20, 172, 700, '#b93a52'),
    phrase('you ask', 12, 190, 150, 400, '#2a2320'),
    phrase('the wind.', 16, 360, 172, 700, '#2a2320'),
    make({
      kind: 'rectangle',
      name: 'Rule',
      from: 19.5,
      to: 33,
      values: { dimensions: [120, 6], fill: '#b93a52', anchor: [-60, 0], position: [-435, 472] },
      keys: {
        scale: [
          [19.5, [0, 1], glide],
          [20.25, [1, 1]],
        ],
        opacity: [
          [31, 1, even],
          [32.5, 0],
        ],
      },
      overrides: squareWords,
    }),
    make({
      kind: 'text',
      name: 'Inés Vardal',
      from: 20,
      to: 33,
      content: { text: 'Inés Vardal, kite maker', family: 'spline-sans', align: 'left' },
      values: { size: 56, weight: 500, fill: '#2a2320' },
      keys: {
        position: [
          [20, [-400, 538], glide],
          [21, [-435, 538]],
        ],
        opacity: [
          [20, 0, even],
          [20.75, 1],
          [31, 1, even],
          [32.5, 0],
        ],
      },
      overrides: squareWords,
    }),
  ];
  const piece: Piece = {
    ...pieceBase('demo-kite-maker', 'A question for the wind', ['tall', 'square'], media, 1.5),
    end: beat(33),
    background: constantTrack('#f6f2ea'),
    layers,
  };
  return landed(piece, 84, 0.35);
}
