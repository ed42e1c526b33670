import { markValue } from '../../piece';
import { LOW_LEFT, SAFE, about, along, group, plate, template, wipes, words } from '../kit';
import { MARK, LENGTH, facts, markPart, block, fromLeft } from './parts';

/** Lower thirds with a mark or logo. */

export const quayside = template(
  facts(
    'quayside',
    'Quayside',
    'solid, friendly, with a logo',
    'A mark comes in from the edge, a plate with the name follows.',
    { mark: { ...MARK, sample: markValue('kite') } },
  ),
  (add) => {
    const all = add(group('Lower third', 0, LENGTH, { held: LOW_LEFT }));
    const { both } = block(add, { parent: all, x: SAFE.left + 156, base: 462, width: 640, from: 1, to: LENGTH - 0.5 });
    add(
      plate(
        { name: 'Plate', fill: '@ground', from: 0.5, to: LENGTH - 0.25, radius: 6 },
        { ...about(both, 36, 28), parent: all, under: both, in: wipes(1), out: wipes(1) },
      ),
    );
    const badge = add(group('Badge', 0, LENGTH, { parent: all, in: fromLeft(1), out: fromLeft(1) }));
    add(
      plate(
        {
          name: 'Badge plate',
          fill: '@accent',
          from: 0,
          to: LENGTH,
          at: [SAFE.left + 60, 426],
          sides: [120, 120],
          radius: 6,
        },
        { parent: badge, more: { hug: { layerId: both.id, padX: 0, padY: 28, axes: 'y' } } },
      ),
    );
    add(markPart('kite', [SAFE.left + 60, 424], 72, '@ground', 0, LENGTH, { parent: badge }));
  },
);

export const handle = template(
  facts(
    'handle',
    'Moored handle',
    'small, modern, for a name on a network',
    'A round mark rolls in and lets a handle out.',
    {
      name: { name: 'Handle', help: 'The name on the network', mirrors: true },
      mark: { ...MARK, sample: markValue('ripple') },
    },
  ),
  (add) => {
    const all = add(group('Lower third', 0, LENGTH, { held: LOW_LEFT }));
    const name = add(
      words(
        {
          name: 'Handle',
          text: '@puertolumo.kites',
          at: [SAFE.left + 122, 436],
          size: 44,
          leastSize: 30,
          width: 640,
          lines: 1,
          stands: 'middle',
          from: 1,
          to: LENGTH - 0.5,
          weight: 600,
          family: '@text',
        },
        {
          parent: all,
          slot: ['name', 'text'],
          in: { gesture: 'horizon', beats: 1, unit: 'whole' },
          out: { gesture: 'horizon', beats: 1, unit: 'whole' },
        },
      ),
    );
    add({
      ...plate({
        name: 'Pill',
        fill: '@ground',
        from: 0.5,
        to: LENGTH - 0.25,
        at: [0, 436],
        sides: [400, 88],
        radius: 44,
      }),
      ...along(name, 78),
      parent: all,
      under: name,
      in: wipes(1),
      out: wipes(1),
    });
    const badge = add(
      group('Badge', 0, LENGTH, {
        parent: all,
        in: { gesture: 'orbit', beats: 1.5, unit: 'whole', parameters: { turn: -180, distance: 1 } },
        out: fromLeft(1),
      }),
    );
    add({
      kind: 'ellipse',
      name: 'Disc',
      from: 0,
      to: LENGTH,
      values: { dimensions: [100, 100], position: [SAFE.left + 50, 436], fill: '@accent' },
      parent: badge,
    });
    add(markPart('ripple', [SAFE.left + 50, 436], 56, '@ground', 0, LENGTH, { parent: badge }));
  },
);

export const landfall = template(
  facts(
    'landfall',
    'Landfall',
    'a place, a date, travelling',
    'Where it is: a pin drops, the place is written beside it.',
    {
      name: { name: 'Place', mirrors: true, help: 'Where it is', sample: 'Puerto Lumo' },
      line: { name: 'Line below', sample: 'North mole, nine in the evening' },
      mark: { ...MARK, sample: markValue('place') },
    },
  ),
  (add) => {
    const all = add(group('Lower third', 0, LENGTH, { held: LOW_LEFT }));
    const { both } = block(add, {
      parent: all,
      x: SAFE.left + 136,
      base: 456,
      width: 660,
      from: 1,
      to: LENGTH - 0.5,
      size: 72,
      weight: 800,
      sample: ['Puerto Lumo', 'North mole, nine in the evening'],
      nameIn: { gesture: 'telescope', beats: 2, parameters: { tracking: 0.25 } },
      nameOut: { gesture: 'dusk', beats: 1, unit: 'whole' },
    });
    add(
      plate(
        { name: 'Plate', fill: '@ground', from: 0.5, to: LENGTH, opacity: 0.86, radius: 60 },
        {
          ...about(both, 136, 30),
          parent: all,
          under: both,
          in: { gesture: 'dusk', beats: 1, unit: 'whole' },
          out: { gesture: 'dusk', beats: 1, unit: 'whole' },
        },
      ),
    );
    add(
      markPart('place', [SAFE.left + 70, 414], 84, '@accent', 0, LENGTH, {
        parent: all,
        in: { gesture: 'gravity', beats: 1.5, unit: 'whole', parameters: { distance: 3, bounce: 0.4 } },
        out: { gesture: 'nova', beats: 1, unit: 'whole' },
      }),
    );
  },
);

export const corner = template(
  facts(
    'corner',
    'Corner berth',
    'compact, card, with a logo above',
    'A card in the corner: the mark above, name and line below.',
    { mark: { ...MARK, sample: markValue('lantern') } },
  ),
  (add) => {
    const all = add(group('Lower third', 0, LENGTH, { held: { ...LOW_LEFT, horizontal: 'right' } }));
    const { both } = block(add, {
      parent: all,
      x: SAFE.right - 36,
      base: 446,
      width: 620,
      nameLines: 1,
      align: 'right',
      from: 1,
      to: LENGTH - 0.5,
      size: 52,
      lineSize: 30,
      nameFill: '@text',
    });
    add(
      plate(
        { name: 'Card', fill: '@ground', from: 0.5, to: LENGTH - 0.25, radius: 18 },
        {
          ...about(both, 36, 36),
          parent: all,
          under: both,
          in: { gesture: 'shutter', beats: 1.5, unit: 'whole', parameters: { overshoot: 0.15 } },
          out: { gesture: 'shutter', beats: 1, unit: 'whole', parameters: { overshoot: 0 } },
        },
      ),
    );
    const badge = add(
      group('Badge', 0, LENGTH, {
        parent: all,
        in: { gesture: 'nova', beats: 1, unit: 'whole', parameters: { overshoot: 0.4 } },
        out: { gesture: 'nova', beats: 1, unit: 'whole' },
      }),
    );
    add({
      kind: 'ellipse',
      name: 'Disc',
      from: 0,
      to: LENGTH,
      values: { dimensions: [104, 104], position: [SAFE.right - 52, 272], fill: '@second' },
      parent: badge,
    });
    add(markPart('lantern', [SAFE.right - 52, 272], 60, '@ground', 0, LENGTH, { parent: badge }));
  },
);
