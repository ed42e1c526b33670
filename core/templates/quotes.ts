import type { Piece } from '../piece';
import { about, fades, fills, flies, group, held, plate, pops, rises, template, wipes, words } from './kit';
import type { Facts } from './kit';

/** Quote cards: what somebody said, and who. */

const QUOTE = { name: 'Quote', help: 'What was said', mirrors: true } as const;
const BY = { name: 'Who', help: 'Who said it' } as const;
const SAID = 'You hold one end of a long talk with the wind.';

const facts = (id: string, name: string, mood: string, help: string): Facts => ({
  id,
  name,
  use: 'quote',
  mood,
  help,
  beats: 20,
  slots: { quote: QUOTE, by: BY },
});
const L = 20;

const tether = template(
  facts(
    'tether',
    'Tether',
    'calm, literary, left',
    'A line is let down beside the words; they rise one after the other.',
  ),
  (add) => {
    const all = add(group('Quote', 0, L));
    add(
      plate(
        { name: 'Line', fill: '@accent', from: 0, to: L, at: [-852, -60], sides: [8, 480] },
        {
          parent: all,
          held: held('left', 'share', 'safe-area'),
          in: { gesture: 'shutter', beats: 2, unit: 'whole', parameters: { overshoot: 0 } },
          out: { gesture: 'shutter', beats: 1, unit: 'whole', parameters: { overshoot: 0 } },
        },
      ),
    );
    add(
      fills(
        {
          name: 'Quote',
          text: SAID,
          area: [0.17, 0.18, 0.66, 0.4],
          stands: 'middle',
          align: 'left',
          size: 110,
          from: 1,
          to: L - 1,
          weight: 600,
        },
        { parent: all, slot: ['quote', 'text'], in: { gesture: 'horizon', beats: 4, unit: 'word' }, out: fades(1.5) },
      ),
    );
    add(
      fills(
        {
          name: 'Who',
          text: 'Inés Vardal, kite maker',
          area: [0.17, 0.66, 0.66, 0.1],
          stands: 'top',
          align: 'left',
          size: 46,
          from: 4,
          to: L - 1,
          weight: 500,
          family: '@text',
          fill: '@accent',
        },
        { parent: all, slot: ['by', 'text'], in: rises(1, 'whole'), out: fades(1) },
      ),
    );
  },
);

const placard = template(
  facts(
    'placard',
    'Placard',
    'clear, solid, printed',
    'A card as large as the words, set on the ground like a notice.',
  ),
  (add) => {
    const all = add(group('Quote', 0, L));
    const quote = add(
      fills(
        {
          name: 'Quote',
          text: SAID,
          area: [0.2, 0.16, 0.6, 0.42],
          stands: 'middle',
          size: 96,
          from: 1,
          to: L - 1,
          weight: 700,
          fill: '@ground',
        },
        { parent: all, slot: ['quote', 'text'], in: { gesture: 'dawn', beats: 3, unit: 'line' }, out: fades(1) },
      ),
    );
    add(
      plate(
        { name: 'Card', fill: '@text', from: 0, to: L, radius: 10 },
        {
          ...about(quote, 90, 90),
          parent: all,
          under: quote,
          in: { gesture: 'shutter', beats: 2, unit: 'whole', parameters: { overshoot: 0.1 } },
          out: { gesture: 'shutter', beats: 1, unit: 'whole', parameters: { overshoot: 0 } },
        },
      ),
    );
    add(
      fills(
        {
          name: 'Who',
          text: 'Teo Marsh, wind reader',
          area: [0.2, 0.7, 0.6, 0.07],
          stands: 'top',
          size: 46,
          from: 3,
          to: L - 1,
          weight: 600,
          family: '@text',
          fill: '@accent',
        },
        { parent: all, slot: ['by', 'text'], in: rises(1, 'whole'), out: fades(1) },
      ),
    );
  },
);

const drumline = template(
  facts(
    'drumline',
    'Drum line',
    'rhythmic, strong, word by word',
    'Each word bursts in after the one before, the name follows at the end.',
  ),
  (add) => {
    const all = add(group('Quote', 0, L));
    add(
      fills(
        {
          name: 'Quote',
          text: SAID,
          area: [0.13, 0.14, 0.74, 0.46],
          stands: 'middle',
          size: 150,
          from: 0,
          to: L - 0.5,
          weight: 800,
          content: { letterCase: 'upper' },
        },
        {
          parent: all,
          slot: ['quote', 'text'],
          in: { gesture: 'nova', beats: 8, unit: 'word', parameters: { overshoot: 0.4 } },
          accent: { gesture: 'flare', beats: 0.8, unit: 'line', every: 4, parameters: { amount: 0 } },
          out: { gesture: 'nova', beats: 1.5, unit: 'word', parameters: { overshoot: 0.2 } },
        },
      ),
    );
    add(
      fills(
        {
          name: 'Who',
          text: 'Oona Castell',
          area: [0.13, 0.69, 0.74, 0.08],
          stands: 'top',
          size: 54,
          from: 8,
          to: L - 0.5,
          weight: 600,
          family: '@text',
          fill: '@second',
        },
        {
          parent: all,
          slot: ['by', 'text'],
          in: { gesture: 'telescope', beats: 2, parameters: { tracking: 0.4 } },
          out: fades(1),
        },
      ),
    );
  },
);

const visitor = template(
  facts(
    'visitor',
    'Visitor',
    'conversation, two colours, upper band',
    'The name comes first, on a band at the top; then what was said.',
  ),
  (add) => {
    const all = add(group('Quote', 0, L));
    const by = add(
      fills(
        {
          name: 'Who',
          text: 'Inés Vardal',
          area: [0.16, 0.1, 0.68, 0.08],
          stands: 'middle',
          size: 58,
          from: 0.5,
          to: L - 0.5,
          weight: 700,
          fill: '@ground',
        },
        { parent: all, slot: ['by', 'text'], in: flies(180, 1, 6), out: flies(180, 1, 6) },
      ),
    );
    add(
      plate(
        { name: 'Band', fill: '@second', from: 0, to: L, radius: 60 },
        { ...about(by, 60, 34), parent: all, under: by, in: wipes(1), out: wipes(1) },
      ),
    );
    add(
      fills(
        {
          name: 'Quote',
          text: SAID,
          area: [0.13, 0.3, 0.74, 0.44],
          stands: 'middle',
          size: 120,
          from: 2,
          to: L - 1,
          weight: 600,
        },
        { parent: all, slot: ['quote', 'text'], in: { gesture: 'mist', beats: 3, unit: 'line' }, out: fades(1.5) },
      ),
    );
  },
);

const highlight = template(
  facts(
    'highlight',
    'Lamplight',
    'warm, underlined, slow',
    'The words glow and cool, a rule runs along under each line.',
  ),
  (add) => {
    const all = add(group('Quote', 0, L));
    add(
      fills(
        {
          name: 'Quote',
          text: SAID,
          area: [0.13, 0.15, 0.74, 0.44],
          stands: 'middle',
          size: 118,
          from: 0.5,
          to: L - 1,
          weight: 600,
          content: { dress: { rule: { kind: 'under', colour: '@accent', thickness: 0.06 } } },
          values: { leading: 1.3 },
        },
        { parent: all, slot: ['quote', 'text'], in: { gesture: 'ember', beats: 4, unit: 'word' }, out: fades(1.5) },
      ),
    );
    add(
      fills(
        {
          name: 'Who',
          text: 'Teo Marsh, wind reader',
          area: [0.13, 0.7, 0.74, 0.07],
          stands: 'top',
          size: 46,
          from: 4,
          to: L - 1,
          weight: 500,
          family: '@text',
        },
        { parent: all, slot: ['by', 'text'], in: fades(2), out: fades(1) },
      ),
    );
  },
);

const bearing = template(
  facts('bearing', 'Bearing', 'round, portrait, with a mark', 'A disc rolls in at the top, the words stand below it.'),
  (add) => {
    const all = add(group('Quote', 0, L));
    const disc = add(group('Disc', 0, L, { parent: all, in: pops(1.5), out: pops(1) }));
    add({
      kind: 'ellipse',
      name: 'Plate',
      from: 0,
      to: L,
      values: { dimensions: [190, 190], position: [0, -330], fill: '@accent' },
      parent: disc,
      held: held('centre', 'share'),
    });
    add(
      words(
        {
          name: 'Sign',
          text: '“',
          at: [0, -330],
          size: 250,
          width: 180,
          lines: 1,
          align: 'center',
          stands: 'middle',
          from: 0,
          to: L,
          weight: 800,
          fill: '@ground',
          values: { anchor: [0, -72] },
        },
        { parent: disc, held: held('centre', 'share') },
      ),
    );
    add(
      fills(
        {
          name: 'Quote',
          text: SAID,
          area: [0.13, 0.33, 0.74, 0.3],
          stands: 'middle',
          size: 104,
          from: 1,
          to: L - 1,
          weight: 600,
        },
        { parent: all, slot: ['quote', 'text'], in: { gesture: 'dawn', beats: 3, unit: 'word' }, out: fades(1.5) },
      ),
    );
    add(
      fills(
        {
          name: 'Who',
          text: 'Oona Castell, night pilot',
          area: [0.13, 0.71, 0.74, 0.07],
          stands: 'top',
          size: 46,
          from: 4,
          to: L - 1,
          weight: 600,
          family: '@text',
          fill: '@accent',
        },
        { parent: all, slot: ['by', 'text'], in: rises(1, 'whole'), out: fades(1) },
      ),
    );
  },
);

export const QUOTES: readonly Piece[] = [tether, placard, drumline, visitor, highlight, bearing];
