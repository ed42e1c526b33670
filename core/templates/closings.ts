import { MARKS, MARK_BOX, markValue } from '../piece';
import type { Piece } from '../piece';
import { about, fades, fills, flies, group, held, plate, pops, rises, template, wipes } from './kit';
import type { Facts } from './kit';

/** End cards and calls to do something. */

const facts = (id: string, name: string, mood: string, help: string, slots: Facts['slots'], beats = 16): Facts => ({
  id,
  name,
  use: 'closing',
  mood,
  help,
  beats,
  slots: slots ?? {},
});
const L = 16;
const TITLE = { name: 'Title', mirrors: true, help: 'What is said at the end' } as const;
const LINE = { name: 'Line below', help: 'Where to go, or who it was' } as const;
const MARK = {
  name: 'Mark or logo',
  kind: 'logo',
  sample: markValue('kite'),
  help: 'A mark of the list, or a logo',
} as const;

const mooring = template(
  facts(
    'mooring',
    'Mooring',
    'calm, logo, sign-off',
    'The logo draws itself, the name and the address rise below it.',
    { title: TITLE, line: LINE, mark: MARK },
  ),
  (add) => {
    const all = add(group('End card', 0, L));
    add({
      kind: 'path',
      name: 'Mark',
      from: 0,
      to: L,
      content: { d: MARKS.kite.d, box: MARK_BOX, rule: 'evenodd' },
      values: { dimensions: [230, 230], position: [0, -230], fill: '@accent' },
      parent: all,
      held: held('centre', 'share'),
      slot: ['mark', 'logo'],
      in: { gesture: 'crescent', beats: 2, unit: 'whole' },
      accent: { gesture: 'pulsar', beats: 0.8, unit: 'whole', every: 4, parameters: { amount: 0.05 } },
      out: { gesture: 'crescent', beats: 1.5, unit: 'whole' },
    });
    add(
      fills(
        {
          name: 'Title',
          text: 'Kite Week',
          area: [0.13, 0.46, 0.74, 0.13],
          stands: 'middle',
          size: 120,
          from: 1,
          to: L - 0.5,
          weight: 800,
        },
        { parent: all, slot: ['title', 'text'], in: rises(2), out: fades(1) },
      ),
    );
    add(
      fills(
        {
          name: 'Line below',
          text: 'Puerto Lumo, every September',
          area: [0.13, 0.68, 0.74, 0.08],
          stands: 'top',
          size: 50,
          from: 2,
          to: L - 0.5,
          weight: 500,
          family: '@text',
          fill: '@second',
        },
        { parent: all, slot: ['line', 'text'], in: fades(1.5), out: fades(1) },
      ),
    );
  },
);

const beckon = template(
  facts(
    'beckon',
    'Beckon',
    'call to action, lively, button',
    'A question, and a plate with what to do that swells on the beat.',
    {
      title: { ...TITLE, help: 'A question, or what it is about' },
      line: { name: 'What to do', help: 'Two or three words' },
    },
  ),
  (add) => {
    const all = add(group('End card', 0, L));
    add(
      fills(
        {
          name: 'Title',
          text: 'Will you fly with us?',
          area: [0.13, 0.14, 0.74, 0.28],
          stands: 'bottom',
          size: 140,
          from: 0,
          to: L - 0.5,
          weight: 700,
        },
        { parent: all, slot: ['title', 'text'], in: { gesture: 'tide', beats: 2, unit: 'word' }, out: fades(1) },
      ),
    );
    const button = add(
      group('Call', 2, L, {
        parent: all,
        in: pops(1, 0.5),
        accent: { gesture: 'pulsar', beats: 0.8, unit: 'whole', every: 2, parameters: { amount: 0.06 } },
        out: pops(1),
      }),
    );
    const call = add(
      fills(
        {
          name: 'What to do',
          text: 'Come to the mole',
          area: [0.2, 0.57, 0.6, 0.09],
          stands: 'middle',
          size: 66,
          from: 2,
          to: L,
          weight: 700,
          fill: '@ground',
        },
        { parent: button, slot: ['line', 'text'] },
      ),
    );
    add(
      plate(
        { name: 'Plate', fill: '@accent', from: 2, to: L, radius: 70 },
        { ...about(call, 76, 46), parent: button, under: call },
      ),
    );
  },
);

const almanac = template(
  facts('almanac', 'Almanac', 'date, event, clear', 'A date in large figures, what is on and where.', {
    number: { name: 'Day', kind: 'number', sample: '14', help: 'The day, in figures' },
    title: { ...TITLE, sample: 'September, nine in the evening' },
    line: LINE,
  }),
  (add) => {
    const all = add(group('End card', 0, L));
    add(
      fills(
        {
          name: 'Day',
          text: '14',
          area: [0.2, 0.1, 0.6, 0.32],
          stands: 'middle',
          size: 400,
          from: 0,
          to: L - 0.5,
          weight: 800,
          fill: '@accent',
        },
        {
          parent: all,
          slot: ['number', 'number'],
          in: { gesture: 'altimeter', beats: 2, unit: 'whole' },
          out: pops(1),
        },
      ),
    );
    add(
      plate(
        { name: 'Rule', fill: '@second', from: 0.5, to: L - 0.5, at: [0, 0], sides: [1420, 6] },
        { parent: all, held: held('both', 'share'), in: wipes(1.5), out: wipes(1) },
      ),
    );
    add(
      fills(
        {
          name: 'Title',
          text: 'September, nine in the evening',
          area: [0.13, 0.54, 0.74, 0.09],
          stands: 'middle',
          size: 72,
          from: 1,
          to: L - 0.5,
          weight: 700,
        },
        { parent: all, slot: ['title', 'text'], in: rises(1.5), out: fades(1) },
      ),
    );
    add(
      fills(
        {
          name: 'Line below',
          text: 'North mole, Puerto Lumo',
          area: [0.13, 0.7, 0.74, 0.07],
          stands: 'middle',
          size: 50,
          from: 2,
          to: L - 0.5,
          weight: 500,
          family: '@text',
          fill: '@second',
        },
        { parent: all, slot: ['line', 'text'], in: fades(1.5), out: fades(1) },
      ),
    );
  },
);

const wake = template(
  facts(
    'wake',
    'In the wake',
    'quick, graphic, goodbye',
    'Bands cross the frame and leave the words behind.',
    { title: TITLE, line: LINE },
    12,
  ),
  (add) => {
    const all = add(group('End card', 0, 12));
    add(
      fills(
        {
          name: 'Title',
          text: 'See you in the air',
          area: [0.13, 0.2, 0.74, 0.26],
          stands: 'middle',
          size: 150,
          from: 1,
          to: 12,
          weight: 800,
        },
        { parent: all, slot: ['title', 'text'], in: { gesture: 'eclipse', beats: 1.5, unit: 'whole' }, out: fades(1) },
      ),
    );
    add(
      fills(
        {
          name: 'Line below',
          text: '@puertolumo.kites',
          area: [0.13, 0.6, 0.74, 0.08],
          stands: 'middle',
          size: 56,
          from: 2,
          to: 12,
          weight: 600,
          family: '@text',
          fill: '@accent',
        },
        { parent: all, slot: ['line', 'text'], in: { gesture: 'eclipse', beats: 1.5, unit: 'whole' }, out: fades(1) },
      ),
    );
    const band = (name: string, fill: string, y: number, from: number): void => {
      add(
        plate(
          { name, fill, from, to: from + 3, at: [0, y], sides: [1920, 300] },
          { parent: all, held: held('both', 'share'), in: flies(180, 1.25, 9), out: flies(0, 1.25, 9) },
        ),
      );
    };
    band('First band', '@accent', -190, 0);
    band('Second band', '@second', 160, 0.5);
  },
);

export const CLOSINGS: readonly Piece[] = [mooring, beckon, almanac, wake];
