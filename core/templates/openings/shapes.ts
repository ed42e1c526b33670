import { MARKS, MARK_BOX, markValue } from '../../piece';
import { fades, fills, flies, group, held, plate, pops, rises, template, words } from '../kit';
import { TITLE, facts, L } from './facts';

/** Opening titles with shapes that move. */

export const lantern = template(
  facts(
    'lantern',
    'Lantern rise',
    'warm, evening, gentle',
    'A great lamp rises from below, the title fades up over it.',
  ),
  (add) => {
    const all = add(group('Opening', 0, L));
    const lamp = (name: string, size: number, fill: string, opacity: number, from: number): void => {
      add({
        kind: 'ellipse',
        name,
        from,
        to: L,
        values: { dimensions: [size, size], position: [0, 540], fill, opacity },
        parent: all,
        held: held('centre', 'bottom'),
        in: flies(-90, 4, 3),
        accent: { gesture: 'pulsar', beats: 0.9, unit: 'whole', every: 4, parameters: { amount: 0.04 } },
        out: flies(-90, 2, 4),
      });
    };
    lamp('Glow', 980, '@second', 0.28, 0);
    lamp('Lamp', 700, '@second', 0.55, 0.5);
    lamp('Heart', 430, '@accent', 1, 1);
    add(
      fills(
        {
          name: 'Title',
          text: 'Night of lanterns',
          area: [0.13, 0.09, 0.74, 0.23],
          stands: 'bottom',
          size: 150,
          from: 3,
          to: L - 1,
        },
        { parent: all, slot: ['title', 'text'], in: { gesture: 'dawn', beats: 2, unit: 'word' }, out: fades(1.5) },
      ),
    );
    add(
      fills(
        {
          name: 'Line below',
          text: 'Puerto Lumo, north mole',
          area: [0.13, 0.41, 0.74, 0.08],
          stands: 'top',
          size: 52,
          from: 4,
          to: L - 1,
          weight: 500,
          family: '@text',
        },
        { parent: all, slot: ['line', 'text'], in: fades(1.5), out: fades(1) },
      ),
    );
  },
);

export const hoist = template(
  facts('hoist', 'Flag hoist', 'bold, festive, striped', 'Three stripes are run across, the title slams in between.'),
  (add) => {
    const all = add(group('Opening', 0, L));
    const stripe = (name: string, fill: string, y: number, from: number, isLeft: boolean): void => {
      add(
        plate(
          { name, fill, from, to: L - from / 2, at: [0, y], sides: [1920, 34] },
          {
            parent: all,
            held: held('both', 'share'),
            in: flies(isLeft ? 180 : 0, 1, 40),
            out: flies(isLeft ? 0 : 180, 1, 40),
          },
        ),
      );
    };
    stripe('Upper stripe', '@accent', -320, 0, true);
    stripe('Second stripe', '@second', -270, 0.5, false);
    stripe('Lower stripe', '@accent', 320, 1, true);
    add(
      fills(
        { name: 'Title', text: 'Kite Week', area: [0.1, 0.3, 0.76, 0.28], size: 240, from: 1, to: L - 1, weight: 800 },
        {
          parent: all,
          slot: ['title', 'text'],
          in: { gesture: 'thunder', beats: 2, unit: 'word', parameters: { shake: 0.2 } },
          out: { gesture: 'thunder', beats: 1, unit: 'whole', parameters: { shake: 0 } },
        },
      ),
    );
    add(
      fills(
        {
          name: 'Line below',
          text: 'Puerto Lumo, nine days of wind',
          area: [0.1, 0.61, 0.76, 0.1],
          stands: 'middle',
          size: 58,
          from: 3,
          to: L - 1,
          weight: 600,
          fill: '@second',
          family: '@text',
        },
        { parent: all, slot: ['line', 'text'], in: rises(1), out: fades(1) },
      ),
    );
  },
);

export const gate = template(
  facts(
    'gate',
    'Harbour gate',
    'big, opening, ceremonial',
    'Two gates part on the beat, the title stands behind them.',
  ),
  (add) => {
    const all = add(group('Opening', 0, L));
    add(
      fills(
        {
          name: 'Title',
          text: 'Doors open at nine',
          area: [0.13, 0.18, 0.74, 0.32],
          stands: 'middle',
          size: 200,
          from: 1,
          to: L,
          weight: 800,
        },
        {
          parent: all,
          slot: ['title', 'text'],
          in: { gesture: 'telescope', beats: 4, parameters: { tracking: 0.3 } },
          out: fades(1),
        },
      ),
    );
    add(
      fills(
        {
          name: 'Line below',
          text: 'Kite Week, Puerto Lumo',
          area: [0.13, 0.62, 0.74, 0.11],
          stands: 'top',
          size: 56,
          from: 3,
          to: L,
          weight: 500,
          fill: '@accent',
          family: '@text',
        },
        { parent: all, slot: ['line', 'text'], in: fades(2), out: fades(1) },
      ),
    );
    for (const side of [-1, 1] as const) {
      add({
        ...plate({
          name: side < 0 ? 'Left gate' : 'Right gate',
          fill: '@accent',
          from: 0,
          to: 4,
          at: [side * 480, 0],
          sides: [962, 1090],
        }),
        parent: all,
        held: held(side < 0 ? 'left' : 'right', 'middle', 'frame', 'height'),
        keys: {
          position: [
            [0, [side * 480, 0], { type: 'named', name: 'quint-in' }],
            [1, [side * 500, 0], { type: 'named', name: 'quint-out' }],
            [4, [side * 1470, 0]],
          ],
        },
      });
    }
  },
);

export const swell = template(
  facts('swell', 'Ground swell', 'fluid, light, sea', 'Two waves come up, the letters ride in on them.'),
  (add) => {
    const all = add(group('Opening', 0, L));
    add(
      fills(
        {
          name: 'Title',
          text: 'Salt and string',
          area: [0.13, 0.12, 0.74, 0.27],
          stands: 'bottom',
          size: 180,
          from: 1,
          to: L - 1,
          weight: 800,
        },
        {
          parent: all,
          slot: ['title', 'text'],
          in: { gesture: 'tide', beats: 2, unit: 'letter' },
          accent: { gesture: 'swell', beats: 8, unit: 'letter', parameters: { distance: 0.06 } },
          out: { gesture: 'tide', beats: 1.5, unit: 'letter' },
        },
      ),
    );
    add(
      fills(
        {
          name: 'Line below',
          text: 'A summer by the harbour',
          area: [0.13, 0.49, 0.74, 0.1],
          stands: 'top',
          size: 54,
          from: 3,
          to: L - 1,
          weight: 500,
          family: '@text',
          fill: '@accent',
        },
        { parent: all, slot: ['line', 'text'], in: { gesture: 'mist', beats: 2, unit: 'whole' }, out: fades(1) },
      ),
    );
    const wave = (name: string, fill: string, y: number, x: number, opacity: number): void => {
      add({
        kind: 'path',
        name,
        from: 0,
        to: L,
        content: {
          d: 'M0 70C200 10 400 0 600 46C800 92 1000 104 1200 58C1400 12 1600 0 1800 42C2000 84 2200 96 2400 36L2400 460L0 460Z',
          box: [2400, 460],
        },
        values: { dimensions: [2800, 460], position: [x, y], fill, opacity },
        keys: {
          position: [
            [0, [x, y]],
            [L, [-x, y]],
          ],
        },
        parent: all,
        held: held('centre', 'bottom'),
        in: flies(-90, 2, 3),
        out: flies(-90, 2, 3),
      });
    };
    wave('Far wave', '@second', 470, -220, 0.55);
    wave('Near wave', '@accent', 560, 240, 0.9);
  },
);

export const rose = template(
  facts('rose', 'Wind rose', 'precise, round, turning', 'A ring draws itself, the letters turn upright in it.', {
    slots: {
      title: TITLE,
      mark: { name: 'Mark or logo', kind: 'logo', sample: markValue('compass'), help: 'Stands above the title' },
    },
  }),
  (add) => {
    const all = add(group('Opening', 0, L));
    const centre = held('centre', 'middle');
    add({
      kind: 'ellipse',
      name: 'Ring',
      from: 0,
      to: L,
      values: { dimensions: [860, 860], position: [0, 0], fill: '@ground', stroke: '@accent', strokeWidth: 6 },
      parent: all,
      held: centre,
      in: { gesture: 'filament', beats: 3, unit: 'whole' },
      out: { gesture: 'filament', beats: 2, unit: 'whole' },
    });
    add({
      kind: 'path',
      name: 'Mark',
      from: 1,
      to: L - 1,
      content: { d: MARKS.compass.d, box: MARK_BOX, rule: 'evenodd' },
      values: { dimensions: [150, 150], position: [0, -230], fill: '@accent' },
      parent: all,
      held: centre,
      slot: ['mark', 'logo'],
      in: { gesture: 'orbit', beats: 2, unit: 'whole', parameters: { turn: -180, distance: 0 } },
      out: pops(1),
    });
    add(
      words(
        {
          name: 'Title',
          text: 'North by kite',
          at: [0, 50],
          size: 120,
          width: 640,
          lines: 3,
          leastSize: 54,
          align: 'center',
          stands: 'middle',
          from: 2,
          to: L - 1,
          weight: 700,
        },
        {
          parent: all,
          held: centre,
          slot: ['title', 'text'],
          in: { gesture: 'compass', beats: 2, unit: 'letter' },
          out: { gesture: 'compass', beats: 1, unit: 'letter' },
        },
      ),
    );
  },
);
