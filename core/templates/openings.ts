import { MARKS, MARK_BOX, markValue } from '../piece';
import type { Piece } from '../piece';
import { fades, fills, flies, group, held, plate, pops, rises, template, wipes, words } from './kit';
import type { Facts } from './kit';

/** Opening titles: what it is called, in the first bars. */

const TITLE = { name: 'Title', help: 'What it is called', mirrors: true } as const;
const LINE = { name: 'Line below', help: 'A few words more' } as const;

const facts = (id: string, name: string, mood: string, help: string, more: Partial<Facts> = {}): Facts => ({
  id,
  name,
  use: 'opening',
  mood,
  help,
  beats: 16,
  slots: { title: TITLE, line: LINE },
  ...more,
});
const L = 16;

const masthead = template(
  facts(
    'masthead',
    'Masthead',
    'editorial, calm, clear',
    'A rule is drawn, the title rises from it, a line drops below.',
  ),
  (add) => {
    const all = add(group('Opening', 0, L));
    add(
      fills(
        {
          name: 'Title',
          text: 'Kite Week',
          area: [0.13, 0.14, 0.74, 0.28],
          stands: 'bottom',
          size: 190,
          from: 1,
          to: L - 1,
        },
        { parent: all, slot: ['title', 'text'], in: rises(2), out: rises(1.5) },
      ),
    );
    add(
      plate(
        { name: 'Rule', fill: '@accent', from: 0, to: L - 0.5, at: [0, 0], sides: [1420, 6] },
        { parent: all, held: held('both', 'share'), in: wipes(1.5), out: wipes(1) },
      ),
    );
    add(
      fills(
        {
          name: 'Line below',
          text: 'Nine days of wind',
          area: [0.13, 0.56, 0.74, 0.14],
          stands: 'top',
          size: 62,
          from: 2,
          to: L - 1,
          weight: 400,
          fill: '@accent',
          family: '@text',
        },
        { parent: all, slot: ['line', 'text'], in: { gesture: 'zenith', beats: 1.5, unit: 'whole' }, out: fades(1) },
      ),
    );
  },
);

const lantern = template(
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

const hoist = template(
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

const gate = template(
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

const broadside = template(
  facts(
    'broadside',
    'Broadside',
    'loud, huge, rhythmic',
    'The words fill the frame, one on each beat, and flash with the music.',
    { slots: { title: { ...TITLE, help: 'A few short words' } }, beats: 12 },
  ),
  (add) => {
    const all = add(group('Opening', 0, 12));
    add(
      fills(
        {
          name: 'Title',
          text: 'Wind takes all',
          area: [0.13, 0.15, 0.74, 0.56],
          size: 420,
          from: 0,
          to: 12,
          weight: 800,
          content: { letterCase: 'upper' },
          values: { leading: 1 },
        },
        {
          parent: all,
          slot: ['title', 'text'],
          in: { gesture: 'comet', beats: 3, unit: 'word' },
          accent: { gesture: 'flare', beats: 0.8, unit: 'word', every: 2, parameters: { amount: 0 } },
          out: { gesture: 'comet', beats: 1, unit: 'word' },
        },
      ),
    );
  },
);

const logbook = template(
  facts('logbook', 'Logbook', 'technical, quiet, documentary', 'Typed on the left, like an entry in a log.'),
  (add) => {
    const all = add(group('Opening', 0, L));
    add(
      fills(
        {
          name: 'Line above',
          text: 'Day one, north wind',
          area: [0.14, 0.18, 0.72, 0.1],
          stands: 'bottom',
          size: 50,
          align: 'left',
          from: 0,
          to: L - 0.5,
          weight: 500,
          fill: '@accent',
          family: '@text',
        },
        { parent: all, slot: ['line', 'text'], in: { gesture: 'beacon', beats: 2 }, out: fades(1) },
      ),
    );
    add(
      fills(
        {
          name: 'Title',
          text: 'What the wind wrote',
          area: [0.14, 0.39, 0.72, 0.32],
          stands: 'top',
          size: 150,
          align: 'left',
          from: 2,
          to: L - 0.5,
          weight: 600,
        },
        { parent: all, slot: ['title', 'text'], in: { gesture: 'beacon', beats: 3 }, out: fades(1) },
      ),
    );
  },
);

const swell = template(
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

const rose = template(
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

const pennants = template(
  facts(
    'pennants',
    'Pennants',
    'graphic, labels, quick',
    'The title on bright bands, line by line; the other line on one of its own.',
  ),
  (add) => {
    const all = add(group('Opening', 0, L));
    const band = (colour: string) => ({ dress: { band: { per: 'line', colour, padX: 0.28, padY: 0.1, radius: 0 } } });
    add(
      fills(
        {
          name: 'Title',
          text: 'Nine days, one sky',
          area: [0.18, 0.16, 0.62, 0.36],
          stands: 'bottom',
          align: 'left',
          size: 150,
          from: 0,
          to: L - 0.5,
          weight: 800,
          fill: '@ground',
          content: band('@accent'),
          values: { leading: 1.28 },
        },
        {
          parent: all,
          slot: ['title', 'text'],
          in: { gesture: 'meteor', beats: 1.5, unit: 'line', parameters: { direction: 180, distance: 8, streak: 0 } },
          out: { gesture: 'meteor', beats: 1, unit: 'line', parameters: { direction: 180, distance: 8, streak: 0 } },
        },
      ),
    );
    add(
      fills(
        {
          name: 'Line below',
          text: 'Kite Week, Puerto Lumo',
          area: [0.18, 0.62, 0.62, 0.1],
          stands: 'top',
          align: 'left',
          size: 58,
          from: 1.5,
          to: L - 1,
          weight: 600,
          family: '@text',
          fill: '@ground',
          content: band('@second'),
          values: { leading: 1.4 },
        },
        {
          parent: all,
          slot: ['line', 'text'],
          in: { gesture: 'meteor', beats: 1, unit: 'whole', parameters: { direction: 180, distance: 8, streak: 0 } },
          out: { gesture: 'meteor', beats: 1, unit: 'whole', parameters: { direction: 180, distance: 8, streak: 0 } },
        },
      ),
    );
  },
);

const tally = template(
  facts('tally', 'Tally', 'event, numbers, bright', 'A number counts up, and what it counts is said below.', {
    slots: {
      number: { name: 'Number', kind: 'number', sample: '1,250', help: 'Digits count up to it' },
      title: { ...TITLE, name: 'What it counts', sample: 'kites in one sky' },
      line: LINE,
    },
  }),
  (add) => {
    const all = add(group('Opening', 0, L));
    add(
      fills(
        {
          name: 'Number',
          text: '1,250',
          area: [0.13, 0.12, 0.74, 0.26],
          stands: 'bottom',
          size: 330,
          from: 0,
          to: L - 1,
          weight: 800,
          fill: '@accent',
        },
        {
          parent: all,
          slot: ['number', 'number'],
          in: { gesture: 'altimeter', beats: 5, unit: 'whole' },
          accent: { gesture: 'pulsar', beats: 0.8, unit: 'whole', every: 4, parameters: { amount: 0.05 } },
          out: { gesture: 'mist', beats: 1.5, unit: 'whole' },
        },
      ),
    );
    add(
      fills(
        {
          name: 'Title',
          text: 'kites in one sky',
          area: [0.13, 0.5, 0.74, 0.15],
          stands: 'top',
          size: 110,
          from: 1,
          to: L - 1,
          weight: 700,
        },
        { parent: all, slot: ['title', 'text'], in: rises(2), out: rises(1) },
      ),
    );
    add(
      fills(
        {
          name: 'Line below',
          text: 'Kite Week in numbers',
          area: [0.13, 0.72, 0.74, 0.06],
          stands: 'top',
          size: 46,
          from: 3,
          to: L - 1,
          weight: 500,
          family: '@text',
          fill: '@second',
        },
        { parent: all, slot: ['line', 'text'], in: fades(1.5), out: fades(1) },
      ),
    );
  },
);

export const OPENINGS: readonly Piece[] = [
  masthead,
  lantern,
  hoist,
  gate,
  broadside,
  logbook,
  swell,
  rose,
  pennants,
  tally,
];
