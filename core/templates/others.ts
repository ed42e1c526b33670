import type { Listen, Piece } from '../piece';
import { about, fades, fills, flies, group, held, plate, pops, rises, template, wipes } from './kit';
import type { Add, Facts, KitPart } from './kit';
import type { Layer } from '../piece';

/** Cards for the middle of a piece: before and after, counting down, lists, chapters, thanks, and music to be seen. */

const facts = (id: string, name: string, mood: string, help: string, slots: Facts['slots'], beats: number): Facts => ({
  id,
  name,
  use: 'more',
  mood,
  help,
  beats,
  slots: slots ?? {},
});
const TITLE = { name: 'Title', mirrors: true } as const;

/** Chips of the wardrobe's colours, one after another on half beats. */
function chips(add: Add, parent: Layer, y: number, from: number, to: number): void {
  for (const [i, role] of ['text', 'accent', 'second'].entries())
    add({
      kind: 'ellipse',
      name: `Colour ${i + 1}`,
      from: from + i / 2,
      to,
      values: { dimensions: [96, 96], position: [(i - 1) * 132, y], fill: `@${role}` },
      parent,
      held: held('centre', 'share'),
      in: pops(1, 0.5),
      out: pops(0.75),
    });
}

/** Fills the frame of every format. */
const WHOLE_FRAME = held('both', 'both', 'frame', 'not');

const turned = template(
  facts(
    'turned',
    'Before and after',
    'comparison, pictures, palette, colour grading',
    'What was, and from the middle on what became of it, wiped over on the beat; the colours of the wardrobe stand above.',
    {
      before: { name: 'Before', mirrors: true, help: 'A word or two' },
      after: { name: 'After', help: 'A word or two' },
      'before-picture': { name: 'Picture before', help: 'A picture or a film', isNeeded: false },
      'after-picture': { name: 'Picture after', help: 'A picture or a film', isNeeded: false },
    },
    16,
  ),
  (add) => {
    const all = add(group('Before and after', 0, 16));
    const side = (slot: string, text: string, fill: string, from: number, to: number, more: Partial<KitPart>): void => {
      const field = plate({ name: `${text} field`, fill, from, to: 16, sides: [1920, 1080] }, { parent: all, ...more });
      add({ ...field, held: WHOLE_FRAME, slot: [`${slot}-picture`, 'picture'] });
      const label = add(
        fills(
          { name: text, text, area: [0.2, 0.62, 0.6, 0.12], size: 120, from: from + 0.5, to, weight: 800 },
          { parent: all, slot: [slot, 'text'], in: pops(1), out: fades(0.5) },
        ),
      );
      add(
        plate(
          { name: `${text} plate`, fill: '@ground', from: from + 0.5, to, radius: 14 },
          { ...about(label, 56, 40), parent: all, under: label, in: wipes(1), out: fades(0.5) },
        ),
      );
    };
    side('before', 'Before', '@second', 0, 7.5, {});
    side('after', 'After', '@accent', 7, 16, { in: { gesture: 'eclipse', beats: 1, unit: 'whole' } });
    chips(add, all, -330, 10, 15.5);
  },
);

const countdown = template(
  facts(
    'countdown',
    'Cast off',
    'countdown, tension, start',
    'Three, two, one on the beats; then the word it was all for.',
    { title: { ...TITLE, name: 'Last word', help: 'What comes after one' } },
    12,
  ),
  (add) => {
    const all = add(group('Countdown', 0, 12));
    for (const [i, figure] of ['3', '2', '1'].entries()) {
      const from = i * 2;
      add({
        kind: 'ellipse',
        name: `Ring ${figure}`,
        from,
        to: from + 2,
        values: {
          dimensions: [620, 620],
          position: [0, 0],
          fill: '@ground',
          stroke: i === 1 ? '@second' : '@accent',
          strokeWidth: 18,
        },
        parent: all,
        held: held('centre', 'middle'),
        in: { gesture: 'filament', beats: 1.75, unit: 'whole' },
      });
      add(
        fills(
          {
            name: figure,
            text: figure,
            area: [0.3, 0.3, 0.4, 0.4],
            stands: 'middle',
            size: 380,
            from,
            to: from + 2,
            weight: 800,
          },
          { parent: all, in: { gesture: 'comet', beats: 0.75, unit: 'whole' }, out: fades(0.5) },
        ),
      );
    }
    add(
      fills(
        {
          name: 'Last word',
          text: 'Let go',
          area: [0.13, 0.26, 0.74, 0.4],
          stands: 'middle',
          size: 300,
          from: 6,
          to: 12,
          weight: 800,
          fill: '@accent',
        },
        {
          parent: all,
          slot: ['title', 'text'],
          in: { gesture: 'thunder', beats: 1, unit: 'whole', parameters: { shake: 0.3 } },
          out: fades(1),
        },
      ),
    );
  },
);

const threefold = template(
  facts(
    'threefold',
    'Threefold',
    'list, steps, explaining',
    'A heading, and three things, one on each bar.',
    {
      title: { ...TITLE, help: 'What they are' },
      first: { name: 'First', sample: 'Wait for the wind' },
      second: { name: 'Second', sample: 'Let out the string' },
      third: { name: 'Third', sample: 'Hold on' },
    },
    20,
  ),
  (add) => {
    const all = add(group('List', 0, 20));
    add(
      fills(
        {
          name: 'Title',
          text: 'How to fly',
          area: [0.16, 0.11, 0.68, 0.13],
          stands: 'bottom',
          align: 'left',
          size: 96,
          from: 0,
          to: 19.5,
          weight: 800,
          fill: '@accent',
        },
        { parent: all, slot: ['title', 'text'], in: rises(1.5), out: fades(1) },
      ),
    );
    const rows = [
      ['first', 'Wait for the wind'],
      ['second', 'Let out the string'],
      ['third', 'Hold on'],
    ] as const;
    for (const [i, [slot, text]] of rows.entries()) {
      const y = 0.35 + i * 0.15;
      const from = 2 + i * 4;
      add(
        fills(
          {
            name: text,
            text,
            area: [0.26, y, 0.58, 0.1],
            stands: 'middle',
            align: 'left',
            size: 64,
            from,
            to: 19.5,
            weight: 600,
            family: '@text',
          },
          { parent: all, slot: [slot, 'text'], in: flies(180, 1, 2), out: fades(1) },
        ),
      );
      add(
        fills(
          {
            name: `Number ${i + 1}`,
            text: String(i + 1),
            area: [0.16, y, 0.08, 0.1],
            stands: 'middle',
            align: 'left',
            size: 88,
            from,
            to: 19.5,
            weight: 800,
            fill: '@second',
          },
          { parent: all, in: pops(1, 0.5), out: fades(1) },
        ),
      );
    }
  },
);

const hears = (i: number, source: Listen['source'], amount: number): Listen => ({
  id: `hears-${i}`,
  property: 'dimensions',
  source,
  amount: [0, amount],
  attack: 0.01,
  release: 0.18,
  smoothing: 0.02,
  curve: 1.2,
  range: [0, 1],
});
const HEARD: readonly Listen['source'][] = ['low', 'mid', 'high', 'energy', 'high', 'mid', 'low'];

const swells = template(
  facts(
    'swells',
    'Swell and song',
    'music, audio, visualiser',
    'Seven bars that listen to the song, under its name.',
    { title: { ...TITLE, help: 'The song' }, line: { name: 'Who plays', help: 'Who made it' } },
    32,
  ),
  (add) => {
    const all = add(group('Music', 0, 32));
    add(
      fills(
        {
          name: 'Title',
          text: 'Salt and String',
          area: [0.13, 0.1, 0.74, 0.16],
          stands: 'bottom',
          size: 110,
          from: 0,
          to: 32,
          weight: 800,
        },
        { parent: all, slot: ['title', 'text'], in: rises(2), out: fades(2) },
      ),
    );
    add(
      fills(
        {
          name: 'Who plays',
          text: 'The Mole Band',
          area: [0.13, 0.33, 0.74, 0.07],
          stands: 'top',
          size: 48,
          from: 1,
          to: 32,
          weight: 500,
          family: '@text',
          fill: '@accent',
        },
        { parent: all, slot: ['line', 'text'], in: fades(2), out: fades(2) },
      ),
    );
    for (const [i, source] of HEARD.entries())
      add({
        kind: 'rectangle',
        name: `Bar ${i + 1}`,
        from: i / 4,
        to: 32,
        values: {
          dimensions: [56, 90 + 30 * (3 - Math.abs(i - 3))],
          position: [(i - 3) * 104, 190],
          fill: i === 3 ? '@accent' : '@second',
          cornerRadius: 28,
        },
        parent: all,
        held: held('centre', 'share'),
        in: { gesture: 'shutter', beats: 1, unit: 'whole', parameters: { overshoot: 0.2 } },
        out: { gesture: 'shutter', beats: 1, unit: 'whole', parameters: { overshoot: 0 } },
        more: { listens: [hears(i, source, 260)] },
      });
  },
);

const chapter = template(
  facts(
    'chapter',
    'Chapter',
    'chapter, divider, number',
    'A number on a disc, and the name of what follows.',
    {
      number: { name: 'Number', kind: 'number', sample: '2', help: 'Which chapter' },
      title: { ...TITLE, help: 'What it is called' },
    },
    12,
  ),
  (add) => {
    const all = add(group('Chapter', 0, 12));
    add({
      kind: 'ellipse',
      name: 'Disc',
      from: 0,
      to: 12,
      values: { dimensions: [300, 300], position: [0, -216], fill: '@accent' },
      parent: all,
      held: held('centre', 'share'),
      in: pops(1, 0.4),
      out: pops(1),
    });
    add(
      fills(
        {
          name: 'Number',
          text: '2',
          area: [0.4, 0.2, 0.2, 0.2],
          stands: 'middle',
          size: 190,
          from: 0.5,
          to: 11.5,
          weight: 800,
          fill: '@ground',
        },
        {
          parent: all,
          slot: ['number', 'number'],
          in: { gesture: 'zenith', beats: 1, unit: 'whole' },
          out: fades(0.75),
        },
      ),
    );
    add(
      fills(
        {
          name: 'Title',
          text: 'The night pilots',
          area: [0.13, 0.54, 0.74, 0.2],
          stands: 'middle',
          size: 130,
          from: 1,
          to: 11.5,
          weight: 700,
        },
        { parent: all, slot: ['title', 'text'], in: { gesture: 'waxing', beats: 2, unit: 'word' }, out: fades(1) },
      ),
    );
  },
);

const thanks = template(
  facts(
    'thanks',
    'Roll of thanks',
    'credits, thanks, warm',
    'A heading, and the names, line by line.',
    {
      title: { ...TITLE, sample: 'With thanks to' },
      names: {
        name: 'Names',
        kind: 'text',
        sample: 'Inés Vardal\nTeo Marsh\nOona Castell\nthe people of the north mole',
        help: 'One on each line',
      },
    },
    24,
  ),
  (add) => {
    const all = add(group('Thanks', 0, 24));
    add(
      fills(
        {
          name: 'Title',
          text: 'With thanks to',
          area: [0.13, 0.1, 0.74, 0.1],
          stands: 'bottom',
          size: 64,
          from: 0,
          to: 23.5,
          weight: 600,
          fill: '@accent',
          family: '@text',
        },
        { parent: all, slot: ['title', 'text'], in: fades(1.5), out: fades(1) },
      ),
    );
    add(
      plate(
        { name: 'Rule', fill: '@accent', from: 0.5, to: 23.5, at: [0, -276], sides: [1420, 4] },
        { parent: all, held: held('both', 'share'), in: wipes(1.5), out: wipes(1) },
      ),
    );
    add(
      fills(
        {
          name: 'Names',
          text: 'Inés Vardal\nTeo Marsh\nOona Castell\nthe people of the north mole',
          area: [0.13, 0.3, 0.74, 0.46],
          stands: 'middle',
          size: 84,
          from: 1,
          to: 23.5,
          weight: 700,
          values: { leading: 1.34 },
        },
        { parent: all, slot: ['names', 'text'], in: { gesture: 'horizon', beats: 8, unit: 'line' }, out: fades(2) },
      ),
    );
  },
);

export const OTHERS: readonly Piece[] = [turned, countdown, threefold, swells, chapter, thanks];
