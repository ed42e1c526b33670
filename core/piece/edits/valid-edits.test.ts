import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  EDITS,
  EMPTY_HISTORY,
  LAYER_KIND_IDS,
  PROPERTY_IDS,
  applyEdits,
  createLayer,
  createMusic,
  NO_CORRECTION,
  newLook,
  parsePiece,
  recordStep,
  redo,
  resolveTimes,
  undo,
} from '@core/piece';
import type { Edit, EditType, Piece } from '@core/piece';
import { newGestureUse } from '@core/motion';
import { countingIds, pieceWithSong, pin, steadyAnalysis } from '../../../tests/helpers/documents';

/**
 * The law: whatever an edit is given, the document after it is valid, can be written and read back, and the way back
 * leads exactly to where it came from.
 */
const analysis = steadyAnalysis(120, 0.5, 60);

const number = fc.oneof(
  fc.constantFrom(
    0,
    -0,
    1,
    -1,
    0.5,
    1e-9,
    1e9,
    -1e9,
    1e21,
    1e308,
    -1e308,
    Number.MAX_SAFE_INTEGER,
    NaN,
    Infinity,
    -Infinity,
  ),
  fc.double({ min: -100, max: 100, noNaN: true }),
  fc.integer({ min: -5, max: 5000 }),
);
const text = fc.oneof(
  fc.constantFrom(
    '',
    'wind',
    '\0',
    'a\0b',
    '\ud83c',
    '\udf8f',
    'kite 🪁',
    '__proto__',
    'constructor',
    'toString',
    'x'.repeat(6000),
    '#ffffff',
    '#ffb74a80',
  ),
  fc.string({ maxLength: 12, unit: 'binary' }),
);
const id = fc.constantFrom(
  'words',
  'flag',
  'drop',
  'lamp',
  'own1',
  'g1',
  'wide',
  'tall',
  'song',
  'k-beat',
  'k-free',
  'new',
  '__proto__',
  'constructor',
  '',
  'x'.repeat(80),
);
const target = fc.oneof(
  fc.record({ type: fc.constant('beat' as const), beat: number }),
  fc.record({ type: fc.constantFrom('hit' as const, 'marker' as const), id }),
);
const moment = fc.oneof(
  fc.record({ kind: fc.constant('free'), seconds: number }),
  fc.record({
    kind: fc.constant('pinned'),
    to: target,
    offset: fc.option(fc.record({ unit: fc.constantFrom('seconds', 'beats'), value: number }), { nil: undefined }),
    last: number,
  }),
);
const vector = fc.tuple(number, number);
const value = fc.oneof(number, vector, text);
const easing = fc.oneof(
  fc.constant({ type: 'linear' }),
  fc.record({ type: fc.constant('bezier'), x1: number, y1: number, x2: number, y2: number }),
  fc.record({ type: fc.constant('spring'), oscillations: number, damping: number }),
);
const key = fc.record({ id, at: moment, value, easing });
const track = fc.record({ value, keyframes: fc.array(key, { maxLength: 3 }) });
const property = fc.constantFrom(...PROPERTY_IDS);
const ref = fc.record({ layerId: id, property: fc.oneof(fc.constant('opacity' as const), property), keyId: id });
const ids = fc.array(id, { maxLength: 3 });
const seconds = number;
const use = fc
  .record({
    id,
    gesture: fc.constantFrom('nova', 'constructor', '__proto__', 'own1'),
    value: number,
    at: fc.option(moment),
    words: fc.option(fc.array(number, { maxLength: 3 })),
    parameters: fc.dictionary(id, number),
  })
  .map(({ value: length, ...rest }) => ({
    ...newGestureUse('nova', 'entrance', 'g'),
    duration: { unit: 'beats', value: length },
    ...rest,
  }));
const layer = fc
  .record({
    kind: fc.constantFrom(...LAYER_KIND_IDS),
    id,
    name: text,
    start: moment,
    end: moment,
    opacity: track,
    text,
  })
  .map(({ kind, opacity, text: words, ...rest }) => {
    const made = createLayer(
      kind === 'picture' || kind === 'path' || kind === 'piece' ? 'ellipse' : kind,
      {
        name: 'made',
        start: pin(0),
        end: pin(4),
        ...(kind === 'text' ? { content: { text: 'made', family: 'syne' } } : {}),
      },
      countingIds('made'),
    );
    return {
      ...made,
      ...rest,
      tracks: { ...made.tracks, opacity },
      content: kind === 'text' ? { ...made.content, text: words } : made.content,
    };
  });
const music = fc
  .record({
    start: number,
    trimStart: number,
    trimEnd: fc.option(number),
    gain: number,
    fadeIn: number,
    cuts: fc.array(fc.record({ at: number, to: number }), { maxLength: 4 }),
  })
  .map((change) => ({ ...createMusic(pieceWithSong().piece.media[0]!), ...change }));
const groups = fc.array(fc.integer({ min: 0, max: 17 }), { maxLength: 4 });
const correction = fc.record(
  {
    bpm: fc.option(number),
    factor: fc.constantFrom(0.5, 1, 2, 3),
    shift: number,
    firstDownbeat: fc.option(number),
    groups: fc.option(groups),
    bars: fc.array(fc.record({ at: number, beatsPerBar: number, groups }), { maxLength: 2 }),
    moves: fc.array(fc.record({ at: number, to: number }), { maxLength: 3 }),
    spans: fc.array(fc.record({ start: number, end: number, beats: number }), { maxLength: 2 }),
  },
  { requiredKeys: [] },
);
const override = fc.option(fc.record({ move: vector, scale: number, hidden: fc.boolean() }));
const format = fc.record({ id, name: text, width: number, height: number });
const marker = fc.record({ id, name: text, colour: text, at: moment });
const look = fc
  .record({ fill: text, weight: number })
  .map((values) => ({ ...newLook({}, {}), values: { ...newLook({}, {}).values, ...values } }));

const effect = fc.record({
  id: fc.constantFrom('e1', 'e2', 'e3'),
  kind: fc.constantFrom('glow', 'tint', 'constructor'),
  isOn: fc.boolean(),
  seed: number,
  parameters: fc.dictionary(fc.constantFrom('radius', 'colour', '__proto__'), track),
});
const mask = fc.record({
  id: fc.constantFrom('m1', 'm2'),
  name: text,
  mode: fc.constantFrom('add', 'intersect', 'glue'),
  inverted: fc.boolean(),
  rule: fc.constantFrom('nonzero', 'evenodd', 'odd'),
  d: fc.constantFrom('M0 0L1 1', '<script>'),
  box: vector,
  tracks: fc.dictionary(fc.constantFrom('feather', 'position', 'none'), track),
});

const mediaRef = fc.record({
  id,
  hash: fc.constantFrom('b'.repeat(64), 'c'.repeat(64)),
  kind: fc.constantFrom('audio', 'picture', 'piece', 'footage'),
  footage: fc.option(
    fc.record({ frameRate: fc.record({ num: number, den: number }), frames: number, hasSound: fc.boolean() }),
  ),
  name: text,
  duration: number,
  width: number,
});

const groupLayer = fc
  .record({ id, name: text })
  .map((given) => ({
    ...createLayer(
      'group',
      { name: '', start: { kind: 'free', seconds: 0 }, end: { kind: 'free', seconds: 4 } },
      () => 'g',
    ),
    ...given,
  }));

/** Payloads of every edit, most of them out of bounds somewhere. */
const PAYLOADS: { [T in EditType]: fc.Arbitrary<Record<string, unknown>> } = {
  'piece.rename': fc.record({ name: text }),
  'piece.setEnd': fc.record({ end: moment }),
  'piece.setFrameRate': fc.record({ frameRate: fc.record({ num: number, den: number }) }),
  'piece.setBackground': fc.record({ background: track }),
  'piece.setPoster': fc.record({ poster: fc.option(moment) }),
  'format.add': fc.record({ format }),
  'format.change': fc.record({ format }),
  'format.remove': fc.record({ id }),
  'format.order': fc.record({ id: fc.constantFrom('wide', 'tall', 'none'), to: fc.nat(3) }),
  'media.add': fc.record({ media: mediaRef }),
  'music.set': fc.record({ music: fc.option(music) }),
  'music.correct': fc.record({ correction }),
  'music.arrange': fc.record({
    duration: number,
    stretches: fc.array(fc.record({ from: number, to: number }), { maxLength: 4 }),
  }),
  'music.rehear': fc.record({
    analysisVersion: fc.integer({ min: -1, max: 1001 }),
    correction: correction.map((change) => ({ ...NO_CORRECTION, ...change })),
    beats: fc.array(fc.tuple(number, number), { maxLength: 3 }),
    hits: fc.array(fc.tuple(id, id), { maxLength: 3 }),
    ratio: number,
  }),
  'music.place': fc.record({ start: number, beatShift: number }),
  'markers.add': fc.record({ markers: fc.array(marker, { maxLength: 3 }) }),
  'tempo.set': fc.record({ tempo: fc.record({ bpm: number, beatsPerBar: number, groups, firstDownbeat: number }) }),
  'marker.put': fc.record({ marker }),
  'marker.remove': fc.record({ ids }),
  'layer.toPath': fc.record({ id }),
  'group.setTime': fc.record({
    id,
    time: fc.option(
      fc.record({
        speed: number,
        repeat: fc.option(fc.record({ unit: fc.constantFrom('beats', 'frames'), value: number })),
        turns: fc.boolean(),
        freeze: fc.option(fc.record({ unit: fc.constantFrom('seconds', 'beats'), value: number })),
      }),
    ),
  }),
  'group.setCombine': fc.record({ id, combine: fc.constantFrom(null, 'union', 'exclude', 'constructor') }),
  'layer.setTravel': fc.record({ id, travel: fc.option(fc.record({ turns: fc.boolean(), isEven: fc.boolean() })) }),
  'within.set': fc.record({ id, from: number, showsGround: fc.boolean() }),
  'within.renew': fc.record({ pieceId: id, media: mediaRef, more: fc.array(mediaRef, { maxLength: 3 }) }),
  'guide.put': fc.record({ guide: fc.record({ id, axis: fc.constantFrom('x', 'y', 'z'), at: number }) }),
  'guide.remove': fc.record({ id }),
  'layer.add': fc.record({ layers: fc.array(layer, { maxLength: 3 }), at: number }, { requiredKeys: ['layers'] }),
  'layer.remove': fc.record({ ids }),
  'layer.rename': fc.record({ id, name: text }),
  'layer.setFlags': fc.record({ ids, hidden: fc.boolean(), locked: fc.boolean() }),
  'layer.setBlend': fc.record({ ids, blend: fc.constantFrom('screen', 'constructor') }),
  'layer.reorder': fc.record({ id, to: number }),
  'group.make': fc.record({ group: groupLayer, ids, at: seconds }),
  'group.dissolve': fc.record({ ids, at: seconds }),
  'layer.reparent': fc.record({ ids, parentId: fc.option(id), behind: fc.option(id), at: seconds }),
  'layer.setSpan': fc.record({ id, start: moment, end: moment }),
  'layer.move': fc.record({ ids, seconds, start: moment }, { requiredKeys: ['ids', 'seconds'] }),
  'layer.place': fc.record({ places: fc.array(fc.record({ id, at: moment }), { maxLength: 3 }) }),
  'layer.setContent': fc.record({
    id,
    content: fc.dictionary(
      fc.constantFrom('text', 'family', 'wrapWidth', 'gradient', '__proto__', 'spans'),
      fc.oneof(value, fc.array(fc.record({ start: number, end: number, weight: number }), { maxLength: 2 })),
    ),
  }),
  'layer.setOverride': fc.record({ id, formatId: id, override }),
  'value.set': fc.record(
    { layerId: id, property, value, at: moment },
    { requiredKeys: ['layerId', 'property', 'value'] },
  ),
  'track.set': fc.record({ layerId: id, property, track }),
  'keys.add': fc.record({ keys: fc.array(fc.record({ layerId: id, property, key }), { maxLength: 3 }) }),
  'keys.remove': fc.record({ refs: fc.array(ref, { maxLength: 3 }) }),
  'keys.place': fc.record({ moves: fc.array(fc.record({ ref, at: moment }), { maxLength: 3 }) }),
  'keys.setEasing': fc.record({ refs: fc.array(ref, { maxLength: 3 }), easing }),
  'keys.setTangents': fc.record({ ref, tangentIn: fc.option(vector), tangentOut: fc.option(vector) }),
  'keys.scaleTime': fc.record({ refs: fc.array(ref, { maxLength: 3 }), pivot: number, factor: number }),
  'keys.shift': fc.record({ shifts: fc.array(fc.record({ ref, seconds }), { maxLength: 3 }) }),
  'keys.reverse': fc.record({ refs: fc.array(ref, { maxLength: 4 }) }),
  'gesture.put': fc.record({ uses: fc.array(fc.record({ layerId: id, use }), { maxLength: 2 }) }),
  'gesture.remove': fc.record({ layerId: id, ids }),
  'gesture.shift': fc.record({ shifts: fc.array(fc.record({ layerId: id, useId: id, seconds }), { maxLength: 2 }) }),
  'gesture.saveOwn': fc.record({
    gesture: fc.record({
      id,
      name: text,
      role: fc.constant('exit'),
      duration: number,
      tracks: fc.dictionary(fc.constantFrom('move', 'opacity', 'none'), track),
    }),
  }),
  'gesture.forgetOwn': fc.record({ id }),
  'piece.setShutter': fc.record({ shutter: number }),
  'words.setOwn': fc.record({ words: fc.array(text, { maxLength: 4 }) }),
  'sheet.set': fc.record({
    sheet: fc.record({
      staging: fc.constantFrom('lantern', 'constructor'),
      manner: fc.constant('single'),
      pace: fc.constant('even'),
      hasLoopCue: fc.boolean(),
      colour: text,
      accent: text,
    }),
  }),
  'layer.setSmear': fc.record({
    ids,
    motionBlur: fc.constantFrom('on', 'never'),
    trail: fc.option(fc.record({ copies: number, spacing: number, fade: number })),
  }),
  'phrases.change': fc.record({ layers: fc.array(layer, { maxLength: 2 }), remove: ids }),
  'effect.put': fc.record({ layerId: id, effect, at: number }, { requiredKeys: ['layerId', 'effect'] }),
  'effect.remove': fc.record({ layerId: id, id: fc.constantFrom('e1', 'e9') }),
  'effect.order': fc.record({ layerId: id, id: fc.constantFrom('e1', 'e2'), to: fc.nat(3) }),
  'effect.setTrack': fc.record({
    layerId: id,
    id: fc.constantFrom('e1', 'e2'),
    parameter: fc.constantFrom('radius', 'colour', 'constructor', 'strength'),
    track,
  }),
  'mask.put': fc.record({ layerId: id, mask, at: number }, { requiredKeys: ['layerId', 'mask'] }),
  'mask.remove': fc.record({ layerId: id, id: fc.constantFrom('m1', 'm9') }),
  'layer.setFollow': fc.record({
    id,
    follow: fc.option(
      fc.record({
        layerId: id,
        properties: fc.array(property, { maxLength: 3 }),
        keepsOwn: fc.boolean(),
        delay: fc.record({ unit: fc.constantFrom('beats', 'frames'), value: number }),
        damping: number,
        looksAt: fc.boolean(),
      }),
    ),
  }),
  'layer.setHug': fc.record({ id, hug: fc.option(fc.record({ layerId: id, padX: number, padY: number })) }),
  'layer.setRepeat': fc.record({
    id,
    repeat: fc.option(
      fc.record({
        way: fc.constantFrom('line', 'spiral'),
        count: fc.nat(300),
        columns: fc.nat(9),
        step: vector,
        radius: number,
        turn: number,
        scale: number,
        fade: number,
        delay: fc.record({ unit: fc.constant('seconds'), value: number }),
      }),
    ),
  }),
  'listen.put': fc.record({
    layerId: id,
    listen: fc.record({
      id,
      property,
      source: fc.constantFrom('low', 'bass'),
      amount: fc.oneof(number, vector),
      attack: number,
      release: number,
      smoothing: number,
      curve: number,
      range: vector,
    }),
  }),
  'wardrobe.set': fc.record({
    wardrobe: fc.record({
      colours: fc.dictionary(fc.constantFrom('accent', 'Accent', '__proto__'), fc.constantFrom('#ffb74a', '@accent')),
      fonts: fc.dictionary(fc.constantFrom('display', 'text'), text),
      logos: fc.constant({}),
      from: fc.constant(null),
    }),
  }),
  'wardrobe.swap': fc.record({ a: fc.constantFrom('accent', 'text', 'A'), b: fc.constantFrom('text', 'ground') }),
  'piece.recolour': fc.record({
    changes: fc.array(
      fc.record({ from: fc.constantFrom('#eee9df', 'red'), to: fc.constantFrom('@accent', '#123456') }),
      { maxLength: 3 },
    ),
  }),
  'listen.remove': fc.record({ layerId: id, id }),
  'layer.setMatte': fc.record({
    id,
    matte: fc.option(fc.record({ layerId: id, channel: fc.constantFrom('alpha', 'red'), inverted: fc.boolean() })),
  }),
  'style.put': fc.record({
    style: fc.record({ id, name: text, look }).map(({ look: of, ...rest }) => ({ ...rest, ...of })),
  }),
  'style.wear': fc.record({ ids, styleId: id }),
  'style.dress': fc.record({ ids, look }),
  'style.forget': fc.record({ id }),
  'layer.setInFormat': fc.record({
    id,
    formatId: fc.constantFrom('wide', 'tall', 'none'),
    property: fc.oneof(property, fc.constantFrom('effect/e1/radius', 'mask/m1/feather', 'mask/m1/d', 'effect//x')),
    value: fc.option(value),
  }),
  'slots.fill': fc.record({
    id: fc.constantFrom('made', 'flag', 'none'),
    values: fc.dictionary(
      fc.constantFrom('name', 'mark', 'none', '__proto__'),
      fc.oneof(text, fc.constant('mark:kite')),
    ),
  }),
  'group.stretch': fc.record({ id: fc.constantFrom('made', 'flag', 'none'), end: moment }),
  'layer.setSlot': fc.record({
    id,
    slot: fc.option(fc.record({ slotId: id, part: fc.constantFrom('text', 'logo', 'song') })),
  }),
  'layer.setConstraints': fc.record({
    ids,
    constraints: fc.option(
      fc.record({
        horizontal: fc.constantFrom('left', 'both', 'top'),
        vertical: fc.constantFrom('top', 'share'),
        within: fc.constantFrom('frame', 'safe-area', 'parent'),
        scales: fc.constantFrom('fit', 'reading', 'not'),
      }),
    ),
  }),
};

function furnished(): Piece {
  const { piece, layer: flag } = pieceWithSong();
  const words = createLayer(
    'text',
    { name: 'Words', start: pin(1), end: pin(5), content: { text: 'nine days', family: 'syne' } },
    countingIds('w'),
  );
  return {
    ...piece,
    layers: [
      {
        ...flag,
        id: 'flag',
        gestures: [newGestureUse('dawn', 'entrance', 'g1')],
        effects: [
          { id: 'e1', kind: 'glow', isOn: true, seed: 0, parameters: {} },
          { id: 'e2', kind: 'tint', isOn: true, seed: 0, parameters: {} },
        ],
        masks: [
          {
            id: 'm1',
            name: 'M',
            mode: 'add',
            inverted: false,
            d: 'M0 0L9 0L9 9Z',
            box: [9, 9],
            rule: 'nonzero',
            forms: [],
            tracks: {},
          },
        ],
      },
      { ...words, id: 'words' },
      { ...words, id: 'filled', parentId: 'made', slot: { slotId: 'name', part: 'text' } },
      { ...flag, id: 'marked', parentId: 'made', slot: { slotId: 'mark', part: 'logo' } },
      {
        ...createLayer('group', { name: 'Made', start: pin(1), end: pin(5) }, () => 'made'),
        madeFrom: {
          id: 'plumb',
          version: 1,
          name: 'Plumb',
          slots: (['name', 'mark'] as const).map((slot) => ({
            id: slot,
            name: slot,
            kind: slot === 'name' ? ('text' as const) : ('logo' as const),
            help: '',
            sample: '',
            isNeeded: true,
            mirrors: slot === 'name',
          })),
          timing: { stretches: 'hold', unit: 'beats', leastReading: true, endsOnBeat: true },
          values: {},
          isMirrored: false,
        },
      },
    ],
    gestures: [{ id: 'own1', name: 'Mine', role: 'exit', duration: 1, tracks: {} }],
    styles: [{ id: 'lamp', name: 'Lamp', ...newLook({ family: 'fraunces' }, { weight: 800 }) }],
  };
}

describe('every edit gives a valid document', () => {
  it.each(Object.keys(EDITS) as EditType[])('%s, with whatever values', (type) => {
    fc.assert(
      fc.property(fc.array(PAYLOADS[type], { minLength: 1, maxLength: 4 }), (payloads) => {
        let piece = furnished();
        const start = piece;
        let history = EMPTY_HISTORY;
        for (const payload of payloads) {
          const result = applyEdits(piece, [{ type, ...payload } as Edit], resolveTimes(piece, analysis));
          if (result.refused !== null) {
            expect(result.refused).not.toBe('');
            expect(result.piece).toBe(piece);
          }
          history = recordStep(history, result, null);
          piece = result.piece;
        }
        const written = JSON.parse(JSON.stringify(piece)) as unknown;
        const read = parsePiece(written);
        expect(read).toMatchObject({ ok: true });
        if (read.ok) expect(JSON.stringify(written)).not.toMatch(/\\u0000|\\ud83c(?!\\ud)/);
        const times = resolveTimes(piece, analysis);
        expect(Number.isFinite(times.end)).toBe(true);
        const after = piece;
        for (let step = undo(piece, history); step; step = undo(piece, history)) ({ piece, history } = step);
        expect(piece).toEqual(start);
        for (let step = redo(piece, history); step; step = redo(piece, history)) ({ piece, history } = step);
        expect(piece).toEqual(after);
      }),
      { numRuns: 50 },
    );
  });

  it('keeps the limits of all lists, and says which', () => {
    const piece = furnished();
    const times = resolveTimes(piece, analysis);
    const many = Array.from({ length: 1999 }, (_, i) => ({ ...piece.layers[0]!, id: `l${i}` }));
    expect(applyEdits(piece, [{ type: 'layer.add', layers: many }], times)).toMatchObject({
      patches: [],
      refused: 'a piece holds at most 2000 layers',
    });
    const formats = Array.from({ length: 11 }, (_, i): Edit => ({
      type: 'format.add',
      format: { id: `f${i}`, name: 'F', width: 100, height: 100 },
    }));
    expect(applyEdits(piece, formats, times).refused).toBe('a piece holds at most 12 formats');
    const keys = Array.from({ length: 1990 }, (_, i) => ({
      id: `k${i}`,
      at: pin(i / 4),
      value: 1,
      easing: { type: 'linear' as const },
    }));
    const heavy = Array.from({ length: 11 }, (_, i) => ({
      ...piece.layers[0]!,
      id: `h${i}`,
      tracks: { ...piece.layers[0]!.tracks, opacity: { value: 1, keyframes: keys } },
    }));
    expect(applyEdits(piece, [{ type: 'layer.add', layers: heavy }], times).refused).toContain('20,000 keyframes');
  });

  it('looks up nothing that every object has', () => {
    const piece = furnished();
    for (const name of ['constructor', '__proto__', 'toString', 'hasOwnProperty']) {
      const used = { ...newGestureUse('nova', 'entrance', 'g9'), gesture: name };
      expect(
        applyEdits(
          piece,
          [{ type: 'gesture.put', uses: [{ layerId: 'flag', use: used }] }],
          resolveTimes(piece, analysis),
        ).refused,
      ).not.toBeNull();
    }
  });
});

describe('a drag', () => {
  it('of three layers is one step of three places, however many moves it has', () => {
    let piece = furnished();
    piece = applyEdits(
      piece,
      [{ type: 'layer.add', layers: [{ ...piece.layers[0]!, id: 'third', gestures: [] }] }],
      resolveTimes(piece, analysis),
    ).piece;
    const start = piece;
    let history = EMPTY_HISTORY;
    for (let move = 1; move <= 200; move++) {
      for (const layerId of ['flag', 'words', 'third']) {
        const result = applyEdits(
          piece,
          [{ type: 'value.set', layerId, property: 'position', value: [move, -move] }],
          resolveTimes(piece, analysis),
        );
        history = recordStep(history, result, 'drag');
        piece = result.piece;
      }
    }
    expect(history.done).toHaveLength(1);
    expect(history.done[0]!.patches.length).toBeLessThanOrEqual(6);
    const undone = undo(piece, history)!;
    expect(undone.piece).toEqual(start);
    expect(redo(undone.piece, undone.history)!.piece).toEqual(piece);
  });
});
