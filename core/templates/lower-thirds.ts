import { MARKS, MARK_BOX, markValue } from '../piece';
import type { Layer, MarkId, Piece } from '../piece';
import { LOW_LEFT, SAFE, about, along, group, plate, template, wipes, words } from './kit';
import type { Add, Facts, KitPart, Moves } from './kit';

/** Lower thirds: who speaks, and where to find them. */

const NAME = { name: 'Name', help: 'Who is seen', mirrors: true } as const;
const LINE = { name: 'Line below', help: 'What they do, or where to find them' } as const;
const MARK = { name: 'Mark or logo', kind: 'logo', help: 'A mark of the list, or a logo of the wardrobe' } as const;

const LENGTH = 12;
const facts = (
  id: string,
  name: string,
  mood: string,
  help: string,
  slots: Facts['slots'] = {},
  more: Partial<Facts> = {},
): Facts => ({
  id,
  name,
  use: 'lower-third',
  mood,
  help,
  beats: LENGTH,
  slots: { name: NAME, line: LINE, ...slots },
  ...more,
});

const markPart = (
  id: MarkId,
  at: readonly [number, number],
  side: number,
  fill: string,
  from: number,
  to: number,
  more: Partial<KitPart> = {},
): KitPart => ({
  kind: 'path',
  name: 'Mark',
  from,
  to,
  content: { d: MARKS[id].d, box: MARK_BOX, rule: 'evenodd' },
  values: { dimensions: [side, side], position: [at[0], at[1]], fill },
  slot: ['mark', 'logo'],
  ...more,
});

interface Block {
  readonly x: number;
  /** Baseline of the lower line. */
  readonly base: number;
  readonly width: number;
  readonly from: number;
  readonly to: number;
  readonly align?: 'left' | 'center' | 'right';
  readonly size?: number;
  readonly nameLines?: number;
  readonly lineSize?: number;
  readonly nameFill?: string;
  readonly lineFill?: string;
  readonly weight?: number;
  readonly sample?: readonly [name: string, line: string];
  readonly slots?: readonly [name: string, line: string];
  readonly nameIn?: Moves;
  readonly lineIn?: Moves;
  readonly nameOut?: Moves;
  readonly lineOut?: Moves;
  readonly parent: Layer;
  readonly content?: Record<string, unknown>;
}

const RISES: Moves = { gesture: 'horizon', beats: 1.5 };
const FADES: Moves = { gesture: 'dusk', beats: 1 };

/** A name with a line below it, as one thing that plates can hug. */
function block(add: Add, b: Block): { both: Layer; name: Layer; line: Layer } {
  const both = add(group('Words', b.from, b.to, { parent: b.parent }));
  const size = b.size ?? 62;
  const lineSize = b.lineSize ?? 34;
  const [nameSlot, lineSlot] = b.slots ?? ['name', 'line'];
  const [nameText, lineText] = b.sample ?? ['Inés Vardal', 'Kite maker, Puerto Lumo'];
  const name = add(
    words(
      {
        name: 'Name',
        text: nameText,
        at: [b.x, b.base - lineSize * 0.95 - size * 0.44],
        size,
        width: b.width,
        ...(b.nameLines ? { lines: b.nameLines } : {}),
        from: b.from,
        to: b.to,
        weight: b.weight ?? 700,
        ...(b.align ? { align: b.align } : {}),
        ...(b.nameFill ? { fill: b.nameFill } : {}),
        ...(b.content ? { content: b.content } : {}),
      },
      { parent: both, slot: [nameSlot, 'text'], in: b.nameIn ?? RISES, out: b.nameOut ?? b.nameIn ?? RISES },
    ),
  );
  const line = add(
    words(
      {
        name: 'Line below',
        text: lineText,
        at: [b.x, b.base],
        size: lineSize,
        leastSize: Math.round(lineSize * 0.8),
        width: b.width,
        lines: 1,
        from: b.from + 0.5,
        to: b.to,
        weight: 500,
        family: '@text',
        fill: b.lineFill ?? '@accent',
        ...(b.align ? { align: b.align } : {}),
      },
      { parent: both, slot: [lineSlot, 'text'], in: b.lineIn ?? FADES, out: b.lineOut ?? FADES },
    ),
  );
  return { both, name, line };
}

const fromLeft = (beats: number, distance = 3): Moves => ({
  gesture: 'meteor',
  beats,
  unit: 'whole',
  parameters: { direction: 180, distance, streak: 0 },
});

const quayside = template(
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

const plumb = template(
  facts('plumb', 'Plumb line', 'quiet, clear, editorial', 'A line is let down, the name rises beside it.'),
  (add) => {
    const all = add(group('Lower third', 0, LENGTH, { held: LOW_LEFT }));
    const { both } = block(add, {
      parent: all,
      x: SAFE.left + 44,
      base: 456,
      width: 760,
      from: 0.5,
      to: LENGTH - 0.5,
      size: 64,
    });
    add(
      plate(
        { name: 'Shade', fill: '@ground', from: 0, to: LENGTH, opacity: 0.82, radius: 4 },
        {
          ...about(both, 44, 30),
          parent: all,
          under: both,
          in: { gesture: 'dusk', beats: 1, unit: 'whole' },
          out: { gesture: 'dusk', beats: 1, unit: 'whole' },
        },
      ),
    );
    add({
      ...plate({ name: 'Line', fill: '@accent', from: 0, to: LENGTH, at: [SAFE.left + 4, 418], sides: [8, 128] }),
      more: { hug: { layerId: both.id, padX: 0, padY: 30, axes: 'y' } },
      parent: all,
      in: { gesture: 'shutter', beats: 1, unit: 'whole', parameters: { overshoot: 0 } },
      out: { gesture: 'shutter', beats: 1, unit: 'whole', parameters: { overshoot: 0 } },
    });
  },
);

const flagline = template(
  facts('flagline', 'Flag line', 'bold, quick, festive', 'Two bands fly in from the edge, one after the other.'),
  (add) => {
    const all = add(group('Lower third', 0, LENGTH, { held: LOW_LEFT }));
    const name = add(
      words(
        {
          name: 'Name',
          text: 'Teo Marsh',
          at: [SAFE.left + 30, 378],
          size: 66,
          width: 800,
          lines: 1,
          stands: 'middle',
          from: 0.25,
          to: LENGTH - 0.25,
          weight: 800,
          fill: '@ground',
        },
        { parent: all, slot: ['name', 'text'], in: fromLeft(1, 8), out: fromLeft(1, 8) },
      ),
    );
    add(
      plate(
        { name: 'Name band', fill: '@accent', from: 0, to: LENGTH, at: [0, 378], sides: [400, 100] },
        { ...along(name, 30), parent: all, under: name, in: fromLeft(1, 6), out: fromLeft(1, 6) },
      ),
    );
    const line = add(
      words(
        {
          name: 'Line below',
          text: 'Wind reader',
          at: [SAFE.left + 30, 458],
          size: 34,
          leastSize: 27,
          width: 800,
          lines: 1,
          stands: 'middle',
          from: 1,
          to: LENGTH - 0.75,
          weight: 600,
          family: '@text',
        },
        { parent: all, slot: ['line', 'text'], in: fromLeft(1, 10), out: fromLeft(1, 10) },
      ),
    );
    add(
      plate(
        { name: 'Line band', fill: '@ground', from: 0.75, to: LENGTH - 0.5, at: [0, 458], sides: [400, 56] },
        { ...along(line, 30), parent: all, under: line, in: fromLeft(1, 8), out: fromLeft(1, 8) },
      ),
    );
  },
);

const handle = template(
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

const pair = template(
  facts('pair', 'Two on the mole', 'a conversation, two speakers', 'Two names, one on each side.', {
    name: { name: 'Name on the left', mirrors: false, help: 'Who is seen on the left' },
    line: { name: 'Line on the left' },
    name2: { name: 'Name on the right', help: 'Who is seen on the right' },
    line2: { name: 'Line on the right' },
  }),
  (add) => {
    const all = add(group('Lower third', 0, LENGTH));
    const side = (isLeft: boolean): void => {
      const from = isLeft ? 0 : 1;
      const to = LENGTH - (isLeft ? 0 : 1);
      const x = isLeft ? SAFE.left : SAFE.right;
      const one = add(
        group(isLeft ? 'On the left' : 'On the right', from, to, {
          parent: all,
          held: { ...LOW_LEFT, horizontal: isLeft ? 'left' : 'right' },
        }),
      );
      const { both } = block(add, {
        parent: one,
        x: x + (isLeft ? 28 : -28),
        base: 458,
        width: 350,
        align: isLeft ? 'left' : 'right',
        size: 46,
        lineSize: 28,
        from: from + 0.5,
        to: to - 0.5,
        slots: isLeft ? ['name', 'line'] : ['name2', 'line2'],
        sample: isLeft ? ['Inés Vardal', 'Kite maker'] : ['Oona Castell', 'Night pilot'],
        lineFill: isLeft ? '@accent' : '@second',
      });
      add(
        plate(
          { name: 'Plate', fill: '@ground', from, to, radius: 6 },
          { ...about(both, 28, 26), parent: one, under: both, in: wipes(1), out: wipes(1) },
        ),
      );
    };
    side(true);
    side(false);
  },
);

const live = template(
  facts('live', 'On the air', 'live, news, alert', 'A tag that beats with the music, and who speaks.', {
    tag: { name: 'Tag', sample: 'LIVE', help: 'A word or two' },
  }),
  (add) => {
    const all = add(group('Lower third', 0, LENGTH, { held: LOW_LEFT }));
    const { both } = block(add, {
      parent: all,
      x: SAFE.left + 30,
      base: 456,
      width: 780,
      from: 0.75,
      to: LENGTH - 0.5,
      size: 62,
      nameLines: 1,
    });
    add(
      plate(
        { name: 'Plate', fill: '@ground', from: 0.25, to: LENGTH - 0.25 },
        { ...about(both, 30, 28), parent: all, under: both, in: wipes(1), out: wipes(1) },
      ),
    );
    const tag = add(
      words(
        {
          name: 'Tag',
          text: 'LIVE',
          at: [SAFE.left + 48, 280],
          size: 28,
          leastSize: 24,
          width: 420,
          lines: 1,
          stands: 'middle',
          from: 0,
          to: LENGTH,
          weight: 800,
          fill: '@ground',
          family: '@text',
          values: { tracking: 0.08 },
        },
        { parent: all, slot: ['tag', 'text'], in: fromLeft(1, 6), out: fromLeft(1, 6) },
      ),
    );
    add({
      ...plate({ name: 'Tag plate', fill: '@second', from: 0, to: LENGTH, at: [0, 280], sides: [180, 48] }),
      ...along(tag, 48),
      parent: all,
      under: tag,
      in: fromLeft(1, 4),
      out: fromLeft(1, 4),
    });
    add({
      kind: 'ellipse',
      name: 'Beat',
      from: 0.5,
      to: LENGTH - 0.5,
      values: { dimensions: [16, 16], position: [SAFE.left + 25, 280], fill: '@ground' },
      parent: all,
      in: { gesture: 'nova', beats: 0.5, unit: 'whole' },
      accent: { gesture: 'pulsar', beats: 0.9, unit: 'whole', every: 1, parameters: { amount: 0.6 } },
      out: { gesture: 'nova', beats: 0.5, unit: 'whole' },
    });
  },
);

const landfall = template(
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

const logline = template(
  facts(
    'logline',
    'Log entry',
    'calm, literary, documentary',
    'A rule is drawn, the name stands on it, the line hangs below.',
  ),
  (add) => {
    const all = add(group('Lower third', 0, LENGTH, { held: LOW_LEFT }));
    const both = add(group('Words', 0.5, LENGTH, { parent: all }));
    const name = add(
      words(
        {
          name: 'Name',
          text: 'Oona Castell',
          at: [SAFE.left + 36, 386],
          size: 66,
          width: 760,
          from: 0.5,
          to: LENGTH - 0.5,
          weight: 500,
        },
        {
          parent: both,
          slot: ['name', 'text'],
          in: { gesture: 'horizon', beats: 2, unit: 'word' },
          out: { gesture: 'horizon', beats: 1, unit: 'whole' },
        },
      ),
    );
    add({
      ...plate({ name: 'Rule', fill: '@accent', from: 0, to: LENGTH, at: [0, 408], sides: [400, 4] }),
      ...along(name, 0),
      parent: all,
      in: wipes(1.5),
      out: wipes(1),
    });
    add(
      words(
        {
          name: 'Line below',
          text: 'Night pilot, Kite Week',
          at: [SAFE.left + 36, 456],
          size: 34,
          leastSize: 27,
          width: 760,
          lines: 1,
          from: 1.5,
          to: LENGTH - 0.5,
          weight: 400,
          family: '@text',
        },
        {
          parent: both,
          slot: ['line', 'text'],
          in: { gesture: 'zenith', beats: 1, unit: 'whole' },
          out: { gesture: 'zenith', beats: 1, unit: 'whole' },
        },
      ),
    );
    add(
      plate(
        { name: 'Shade', fill: '@ground', from: 0, to: LENGTH, opacity: 0.86 },
        {
          ...about(both, 36, 30),
          parent: all,
          under: both,
          in: { gesture: 'dusk', beats: 1, unit: 'whole' },
          out: { gesture: 'dusk', beats: 1, unit: 'whole' },
        },
      ),
    );
  },
);

const breakwater = template(
  facts(
    'breakwater',
    'Breakwater',
    'broad, event, full width',
    'A band along the whole bottom: the name at one end, the line at the other.',
  ),
  (add) => {
    const all = add(group('Lower third', 0, LENGTH));
    // Wider than the frame: margins of safe areas are not the same on both sides.
    const held = { ...LOW_LEFT, horizontal: 'both' } as const;
    const rises: Moves = { gesture: 'shutter', beats: 1, unit: 'whole', parameters: { overshoot: 0 } };
    add(
      plate(
        { name: 'Edge', fill: '@accent', from: 0, to: LENGTH, at: [0, 352], sides: [2800, 8] },
        { parent: all, held, in: wipes(1.5), out: wipes(1) },
      ),
    );
    add(
      plate(
        { name: 'Band', fill: '@ground', from: 0.25, to: LENGTH - 0.25, at: [0, 422], sides: [2800, 132] },
        { parent: all, held, in: rises, out: rises },
      ),
    );
    add(
      words(
        {
          name: 'Name',
          text: 'Inés Vardal',
          at: [SAFE.left, 422],
          size: 64,
          leastSize: 34,
          width: 480,
          lines: 2,
          stands: 'middle',
          from: 1,
          to: LENGTH - 0.5,
          weight: 800,
        },
        { parent: all, held: LOW_LEFT, slot: ['name', 'text'], in: RISES, out: RISES },
      ),
    );
    add(
      words(
        {
          name: 'Line below',
          text: 'Kite maker',
          at: [SAFE.right, 422],
          size: 36,
          leastSize: 26,
          width: 350,
          lines: 2,
          align: 'right',
          stands: 'middle',
          from: 1.5,
          to: LENGTH - 0.5,
          weight: 500,
          family: '@text',
          fill: '@accent',
        },
        { parent: all, held: { ...LOW_LEFT, horizontal: 'right' }, slot: ['line', 'text'], in: FADES, out: FADES },
      ),
    );
  },
);

const corner = template(
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

export const LOWER_THIRDS: readonly Piece[] = [
  quayside,
  plumb,
  flagline,
  handle,
  pair,
  live,
  landfall,
  logline,
  breakwater,
  corner,
];
