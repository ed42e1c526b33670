import { newGestureUse } from '@core/motion';
import type { GestureRole, GestureUse } from '@core/motion';
import { constantTrack, newGradient } from '@core/piece';
import type { Layer, Listen, MediaRef, Piece } from '@core/piece';
import { readSvg, svgLayers } from '@core/svg';
import type { Outliner } from '@core/svg';
import { beat, createComposer, even } from '@core/templates';
import { landed } from './landed';
import { LOGO_SVG } from './logo';
import { SWELL, pieceBase } from './pieces';

/** The festival's own intro: its logo draws itself on to the beat, before a backdrop that listens; its name is seen in waves. */

/** Where the mark and the name stand in other formats, pixels of those. */
const MARK = {
  tall: { move: [405, -496], scale: 1.5, hidden: false },
  square: { move: [194, -310], scale: 0.72, hidden: false },
} satisfies Layer['overrides'];
const NAME = {
  tall: { move: [-326, 215], scale: 1.7, hidden: false },
  square: { move: [-233, 225], scale: 1.2, hidden: false },
} satisfies Layer['overrides'];

const [FIRST, LAST] = [0, 24];
/** Beats on which the parts of the logo are whole: from the first bar's third beat, two a beat. */
const DRAWN = { from: 2, step: 0.5, takes: 2 } as const;

/** There are no words in the logo. */
const NO_WORDS: Outliner = {
  familyFor: () => ({ family: 'bricolage-grotesque', isKnown: true }),
  outline: () => ({ d: '', width: 0 }),
};

function logoLayers(parentId: string): Layer[] {
  const drawing = readSvg(LOGO_SVG, { outliner: NO_WORDS, fit: { width: 620, height: 620 } });
  if ('problem' in drawing) throw new Error(`the demo's logo: ${drawing.problem}`);
  let count = 0;
  const layers = svgLayers(drawing, {
    name: 'Logo',
    start: beat(FIRST),
    end: beat(LAST),
    parentId,
    position: [-480, 0],
    newId: () => `logo-${++count}`,
  });
  let part = 0;
  return layers.map((layer) => {
    if (layer.kind === 'group') return layer;
    const at = beat(DRAWN.from + DRAWN.step * part++);
    const line = gesture('filament', 'entrance', `drawn-${part}`, {
      unit: 'whole',
      duration: { unit: 'beats', value: DRAWN.takes },
      landing: 'end',
      at,
    });
    return { ...layer, gestures: [line] };
  });
}

const listen = (id: string, more: Partial<Listen>): Listen => ({
  id,
  property: 'scale',
  source: 'low',
  amount: 0.2,
  attack: 0.01,
  release: 0.25,
  smoothing: 0.02,
  curve: 1,
  range: [0.05, 0.9],
  ...more,
});

const gesture = (name: string, role: GestureRole, id: string, more: Partial<GestureUse>): GestureUse => ({
  ...newGestureUse(name, role, id),
  ...more,
});
const leaves = (id: string): GestureUse =>
  gesture('dusk', 'exit', id, { unit: 'whole', duration: { unit: 'beats', value: 1.5 } });

export function logoIntro(media: MediaRef): Piece {
  const make = createComposer();
  const span = { from: FIRST, to: LAST } as const;
  const mark = make({ ...span, kind: 'group', name: 'Mark', overrides: MARK });
  const name = make({ ...span, kind: 'group', name: 'Name', overrides: NAME, values: { position: [0, 0] } });
  const glow = make({
    ...span,
    kind: 'ellipse',
    name: 'Glow',
    content: { fillGradient: newGradient('radial', '@dusk', '@ground') },
    values: { dimensions: [2600, 1500], fill: '@dusk', opacity: 0.45 },
    more: { listens: [listen('glow', { property: 'opacity', source: 'energy', amount: 0.5, smoothing: 0.4 })] },
  });
  const lamps = make({
    ...span,
    kind: 'figure',
    name: 'Lamps',
    content: { figure: 'ring' },
    values: { dimensions: [64, 64], position: [-480, -410], inner: 0.62, fill: '@accent', opacity: 0.5 },
    keys: {
      rotation: [
        [0, 0, even],
        [24, 120],
      ],
    },
    more: {
      parentId: mark.id,
      repeat: {
        way: 'circle',
        count: 24,
        columns: 1,
        step: [0, 0],
        radius: 410,
        turn: 0,
        scale: 1,
        fade: 1,
        // A wave of light goes once round in a bar.
        delay: { unit: 'beats', value: 1 / 6 },
      },
      listens: [listen('lamps', { amount: [0.7, 0.7] }), listen('shine', { property: 'opacity', amount: 0.5 })],
    },
  });
  const letters = make({
    kind: 'text',
    name: 'Kite Week',
    from: 8,
    to: LAST,
    content: { text: 'Kite\nWeek', family: '@display', align: 'left' },
    values: { size: 300, weight: 800, position: [-60, -90], fill: '@text', leading: 0.92 },
    more: { parentId: name.id, gestures: [gesture('horizon', 'entrance', 'rise', { landing: 'end', at: beat(8) })] },
  });
  const day = make({
    kind: 'rectangle',
    name: 'Day',
    from: 8,
    to: LAST,
    values: { dimensions: [1400, 900], position: [330, -60], fill: '@text' },
    more: { parentId: name.id },
  });
  const waves = make({
    kind: 'path',
    name: 'Waves',
    from: 8,
    to: LAST,
    content: { d: SWELL, box: [1920, 400] },
    values: { dimensions: [1920, 460], fill: '@accent' },
    keys: {
      position: [
        [8, [150, 300], even],
        [24, [-250, 170]],
      ],
    },
    more: { parentId: name.id, listens: [listen('swell', { property: 'position', amount: [0, -30] })] },
  });
  const seen = make({
    kind: 'group',
    name: 'Seen in the letters',
    from: 8,
    to: LAST,
    more: { parentId: name.id, matte: { layerId: letters.id, channel: 'alpha', inverted: false } },
  });
  day.parentId = seen.id;
  waves.parentId = seen.id;
  const line = make({
    kind: 'text',
    name: 'Nine days of wind',
    from: 11,
    to: LAST,
    content: { text: 'Puerto Lumo, nine days of wind', family: '@text', align: 'left' },
    values: { size: 54, weight: 600, position: [-20, 330], fill: '@ground' },
    more: { parentId: name.id, gestures: [gesture('dawn', 'entrance', 'line', { landing: 'end', at: beat(12) })] },
  });
  const plate = make({
    kind: 'rectangle',
    name: 'Plate',
    from: 10,
    to: LAST,
    values: { fill: '@accent', cornerRadius: 12 },
    more: {
      parentId: name.id,
      hug: { layerId: line.id, padX: 34, padY: 26, axes: 'both' },
      gestures: [gesture('eclipse', 'entrance', 'plate', { landing: 'end', at: beat(11), unit: 'whole' })],
    },
  });
  mark.gestures = [leaves('mark-leaves')];
  name.gestures = [leaves('name-leaves')];
  const piece: Piece = {
    ...pieceBase('demo-kite-week', 'Kite Week', ['wide', 'tall', 'square'], media, 1),
    end: beat(LAST),
    poster: beat(16),
    background: constantTrack('@ground'),
    wardrobe: {
      colours: { ground: '#10202c', text: '#fff3df', accent: '#ffb74a', second: '#54c6c0', dusk: '#5a2f46' },
      fonts: { display: 'bricolage-grotesque', text: 'spline-sans' },
      logos: {},
      from: null,
    },
    layers: [glow, lamps, ...logoLayers(mark.id), mark, letters, day, waves, seen, plate, line, name],
  };
  return landed(piece, 118, 0.2);
}
