import { fades, fills, group, held, plate, rises, template, wipes } from '../kit';
import { TITLE, LINE, facts, L } from './facts';

/** Opening titles of lettering alone. */

export const masthead = template(
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

export const broadside = template(
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

export const logbook = template(
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

export const pennants = template(
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

export const tally = template(
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
