import { LOW_LEFT, SAFE, about, along, group, plate, template, wipes, words } from '../kit';
import type { Moves } from '../kit';
import { LENGTH, facts, RISES, FADES, block, fromLeft } from './parts';

/** Lower thirds of words and plates. */

export const plumb = template(
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

export const flagline = template(
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

export const pair = template(
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

export const live = template(
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

export const logline = template(
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

export const breakwater = template(
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
