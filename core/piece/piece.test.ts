import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  NO_CORRECTION,
  DEFAULT_SHEET,
  EDITS,
  EMPTY_HISTORY,
  PROPERTY_IDS,
  applyEdits,
  createLayer,
  createMusic,
  kindProperties,
  LAYER_KIND_IDS,
  listMoments,
  newLook,
  parsePiece,
  pieceGrid,
  recordStep,
  redo,
  resolveTimes,
  undo,
  trackOf,
} from '@core/piece';
import type { Edit, History, Listen, Mask, Piece } from '@core/piece';
import { newGestureUse } from '@core/motion';
import { barToBeat, beatToSeconds, freeMoment } from '@core/time';
import { countingIds, pieceWithSong, pin, steadyAnalysis } from '../../tests/helpers/documents';

const analysis = steadyAnalysis(120, 0.5, 60);
const apply = (piece: Piece, edits: Edit[], a = analysis) => applyEdits(piece, edits, resolveTimes(piece, a));

/** Where every moment of a document lies, by its place. */
const timesOf = (piece: Piece, a: typeof analysis | null) => {
  const { timeOf } = resolveTimes(piece, a);
  return listMoments(piece).map(({ moment }) => ({ moment, time: timeOf(moment) }));
};

describe('music is the clock', () => {
  it('moves everything pinned when the grid is shifted, and nothing free, in one undo step', () => {
    const { piece } = pieceWithSong();
    const before = timesOf(piece, analysis);
    const result = apply(piece, [{ type: 'music.correct', correction: { shift: 0.125 } }]);
    const after = timesOf(result.piece, analysis);
    // Hits are sounds: shifting the beats does not move them.
    after.forEach(({ moment, time }, i) => {
      const moves = moment.kind === 'pinned' && moment.to.type !== 'hit';
      expect(time - before[i]!.time).toBeCloseTo(moves ? 0.125 : 0, 9);
    });
    const history = recordStep(EMPTY_HISTORY, result, null);
    expect(history.done).toHaveLength(1);
    expect(undo(result.piece, history)?.piece).toEqual(piece);
  });

  it('keeps bar, beat and fraction of every pin when the tempo changes', () => {
    const { piece } = pieceWithSong();
    const slower = apply(piece, [{ type: 'music.correct', correction: { bpm: 90 } }]).piece;
    const grid = pieceGrid(slower, analysis);
    const keys = trackOf(slower.layers[0]!, 'opacity')!.keyframes;
    const { timeOf, end } = resolveTimes(slower, analysis);
    expect(timeOf(keys[1]!.at)).toBeCloseTo(beatToSeconds(grid, 4.75), 9);
    expect(timeOf(keys[1]!.at)).toBeCloseTo(0.5 + (4.75 * 60) / 90, 9);
    expect(timeOf(keys[2]!.at)).toBeCloseTo(0.5 + (6 * 60) / 90 + 0.05, 9);
    expect(timeOf(slower.layers[0]!.end)).toBeCloseTo(0.5 + (15.5 * 60) / 90, 9);
    expect(end).toBeCloseTo(0.5 + (16 * 60) / 90, 9);
    expect(timeOf(keys[5]!.at)).toBe(3.3);
  });

  it('lands every beat pin on the new song’s beats when the song is replaced; hits of the old song keep their time and are reported', () => {
    const { piece } = pieceWithSong();
    const hitTime = resolveTimes(piece, analysis).timeOf(trackOf(piece.layers[0]!, 'opacity')!.keyframes[3]!.at);
    const next = steadyAnalysis(97, 1.2, 50, 3);
    const media = { id: 'other', hash: 'b'.repeat(64), kind: 'audio' as const, name: 'other.wav', duration: 40 };
    const replaced = apply(piece, [
      { type: 'media.add', media },
      { type: 'music.set', music: createMusic(media) },
    ]).piece;
    const times = resolveTimes(replaced, next);
    expect(times.timeOf(pin(barToBeat(times.grid, 2)))).toBeCloseTo(next.beats[3]!, 9);
    const keys = trackOf(replaced.layers[0]!, 'opacity')!.keyframes;
    expect(times.timeOf(keys[0]!.at)).toBeCloseTo(next.beats[2]!, 9);
    expect(times.timeOf(keys[1]!.at)).toBeCloseTo(next.beats[4]! + 0.75 * (60 / 97), 9);
    expect(times.timeOf(keys[4]!.at)).toBeCloseTo(next.beats[9]!, 9);
    expect(times.timeOf(keys[3]!.at)).toBeCloseTo(hitTime, 9);
    expect(times.missing.map((m) => m.where)).toEqual(['opacity keyframe']);
  });

  it('keeps what was pinned to a marker in place when the marker goes', () => {
    const { piece } = pieceWithSong();
    const key = trackOf(piece.layers[0]!, 'opacity')!.keyframes[4]!;
    const before = resolveTimes(piece, analysis).timeOf(key.at);
    const without = apply(piece, [{ type: 'marker.remove', ids: ['drop'] }]).piece;
    const times = resolveTimes(without, analysis);
    expect(times.timeOf(trackOf(without.layers[0]!, 'opacity')!.keyframes[4]!.at)).toBe(before);
    expect(times.missing).toHaveLength(1);
  });

  it('holds for any shift and tempo: pinned beats sit on the grid, free moments do not move', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -2, max: 2, noNaN: true }),
        fc.option(fc.double({ min: 30, max: 300, noNaN: true })),
        fc.constantFrom<0.5 | 1 | 2>(0.5, 1, 2),
        fc.option(fc.double({ min: 0, max: 20, noNaN: true })),
        (shift, bpm, factor, firstDownbeat) => {
          const { piece } = pieceWithSong();
          const changed = apply(piece, [
            { type: 'music.correct', correction: { shift, bpm, factor, firstDownbeat } },
          ]).piece;
          const { grid, timeOf } = resolveTimes(changed, analysis);
          return listMoments(changed).every(({ moment }) =>
            moment.kind === 'free'
              ? timeOf(moment) === moment.seconds
              : moment.to.type !== 'beat' || moment.offset
                ? true
                : Math.abs(timeOf(moment) - beatToSeconds(grid, moment.to.beat)) < 1e-9,
          );
        },
      ),
    );
  });

  it('makes the beat nearest to the chosen place “one”, and puts it exactly there', () => {
    const { piece } = pieceWithSong();
    const changed = apply(piece, [{ type: 'music.correct', correction: { firstDownbeat: 2.04 } }]).piece;
    expect(beatToSeconds(pieceGrid(changed, analysis), 0)).toBeCloseTo(2.04, 9);
    expect(beatToSeconds(pieceGrid(changed, analysis), 1)).toBeCloseTo(2.54, 9);
  });
});

describe('edits', () => {
  /** One sound edit of each type on the standard document. */
  const layerIds = () => pieceWithSong().piece.layers.map((l) => l.id);
  const ref = (keyId: string) => ({ layerId: layerIds()[0]!, property: 'opacity' as const, keyId });
  const MASK: Mask = {
    id: 'mask',
    name: 'Mask 1',
    mode: 'add',
    inverted: false,
    rule: 'evenodd',
    forms: [],
    d: 'M0 0L90 0L90 40L0 40Z',
    box: [90, 40],
    tracks: { feather: { value: 6, keyframes: [] } },
  };
  const LISTEN: Listen = {
    id: 'heard',
    property: 'scale',
    source: 'hits',
    amount: [0.2, 0.2],
    attack: 0,
    release: 0.3,
    smoothing: 0,
    curve: 1,
    range: [0, 1],
  };
  const samples: Edit[] = [
    { type: 'piece.rename', name: 'Nine days' },
    { type: 'piece.setPoster', poster: freeMoment(1.5) },
    { type: 'piece.setEnd', end: freeMoment(7) },
    { type: 'piece.setFrameRate', frameRate: { num: 25, den: 1 } },
    { type: 'piece.setBackground', background: { value: '#ffffff', keyframes: [] } },
    { type: 'format.add', format: { id: 'square', name: 'Square', width: 1080, height: 1080 } },
    { type: 'format.change', format: { id: 'tall', name: 'Taller', width: 1080, height: 2000 } },
    { type: 'format.remove', id: 'tall' },
    { type: 'music.set', music: null },
    { type: 'music.correct', correction: { bpm: 100 } },
    {
      type: 'music.rehear',
      analysisVersion: 9,
      correction: { ...NO_CORRECTION, groups: [3, 2] },
      beats: [[8, 16]],
      hits: [],
      ratio: 2,
    },
    { type: 'tempo.set', tempo: { bpm: 99, beatsPerBar: 5, groups: [3, 2], firstDownbeat: 0.2 } },
    { type: 'marker.put', marker: { id: 'new', name: 'Here', colour: '#ffffff', at: pin(3) } },
    { type: 'marker.remove', ids: ['drop'] },
    { type: 'layer.toPath', id: layerIds()[0]! },
    {
      type: 'group.setTime',
      id: 'group',
      time: { speed: 0.5, repeat: { unit: 'beats', value: 4 }, turns: true, freeze: null },
    },
    { type: 'group.setCombine', id: 'group', combine: 'subtract' },
    { type: 'layer.setTravel', id: layerIds()[0]!, travel: { turns: true, isEven: false } },
    { type: 'within.set', id: 'within', from: 2, showsGround: true },
    {
      type: 'within.renew',
      pieceId: 'inner',
      media: { id: 'inner-2', hash: 'e'.repeat(64), kind: 'piece', name: 'Inner' },
      more: [],
    },
    { type: 'guide.put', guide: { id: 'new', axis: 'x', at: 0.25 } },
    { type: 'guide.remove', id: 'third' },
    {
      type: 'layer.add',
      layers: [
        createLayer(
          'text',
          { name: 'T', start: freeMoment(0), end: freeMoment(1), content: { text: 'x', family: 'syne' } },
          countingIds('n'),
        ),
      ],
    },
    { type: 'layer.remove', ids: layerIds() },
    { type: 'layer.rename', id: layerIds()[0]!, name: 'Pennant' },
    { type: 'layer.setFlags', ids: layerIds(), hidden: true },
    { type: 'layer.setBlend', ids: layerIds(), blend: 'screen' },
    { type: 'layer.setSpan', id: layerIds()[0]!, end: freeMoment(4) },
    { type: 'layer.move', ids: layerIds(), seconds: 0.75 },
    { type: 'layer.setContent', id: layerIds()[0]!, content: { gradient: 'linear' } },
    {
      type: 'layer.setOverride',
      id: layerIds()[0]!,
      formatId: 'tall',
      override: { move: [1, 2], scale: 2, hidden: false },
    },
    { type: 'value.set', layerId: layerIds()[0]!, property: 'rotation', value: 12 },
    { type: 'value.set', layerId: layerIds()[0]!, property: 'opacity', value: 0.7, at: pin(8) },
    { type: 'keys.remove', refs: [ref('k-beat')] },
    { type: 'keys.place', moves: [{ ref: ref('k-beat'), at: pin(7) }] },
    {
      type: 'keys.setEasing',
      refs: [ref('k-beat'), ref('k-free')],
      easing: { type: 'bounce', bounces: 2, restitution: 0.5 },
    },
    { type: 'keys.scaleTime', refs: [ref('k-beat'), ref('k-fraction')], pivot: 1.5, factor: 2 },
    { type: 'keys.reverse', refs: [ref('k-beat'), ref('k-fraction'), ref('k-offset')] },
    {
      type: 'keys.setTangents',
      ref: { layerId: layerIds()[0]!, property: 'opacity', keyId: 'k-beat' },
      tangentOut: [10, -5],
    },
    {
      type: 'keys.add',
      keys: [
        {
          layerId: layerIds()[0]!,
          property: 'opacity',
          key: { id: 'k-new', at: pin(11), value: 0.1, easing: { type: 'linear' } },
        },
      ],
    },
    {
      type: 'track.set',
      layerId: layerIds()[0]!,
      property: 'opacity',
      track: { value: 1, keyframes: [{ id: 'k-set', at: pin(3), value: 0.4, easing: { type: 'linear' } }] },
    },
    { type: 'keys.shift', shifts: [{ ref: ref('k-free'), seconds: 0.2 }] },
    { type: 'markers.add', markers: [{ id: 'm2', name: 'Gust', colour: '#ffb74a', at: pin(4) }] },
    {
      type: 'media.add',
      media: {
        id: 'font',
        hash: 'b'.repeat(64),
        kind: 'font',
        name: 'lumo.ttf',
        font: { family: 'Lumo Block', style: 'Bold', italic: false, weights: [700, 700], axes: [], ranges: [32, 126] },
      },
    },
    {
      type: 'music.arrange',
      duration: 30,
      stretches: [
        { from: 0, to: 8 },
        { from: 16, to: 24 },
      ],
    },
    { type: 'music.place', start: 0.5, beatShift: 1 },
    { type: 'layer.reorder', id: layerIds()[0]!, to: 1 },
    { type: 'layer.place', places: [{ id: layerIds()[0]!, at: pin(8) }] },
    { type: 'layer.setSmear', ids: layerIds(), motionBlur: 'on', trail: { copies: 3, spacing: 0.1, fade: 0.5 } },
    { type: 'piece.setShutter', shutter: 180 },
    { type: 'words.setOwn', words: ['livestream', 'Vardal'] },
    { type: 'sheet.set', sheet: { ...DEFAULT_SHEET, staging: 'bunting' } },
    { type: 'gesture.put', uses: [{ layerId: layerIds()[0]!, use: newGestureUse('nova', 'entrance', 'g2') }] },
    { type: 'gesture.remove', layerId: layerIds()[0]!, ids: ['g1'] },
    { type: 'gesture.shift', shifts: [{ layerId: layerIds()[0]!, useId: 'g1', seconds: 0.1 }] },
    {
      type: 'gesture.saveOwn',
      gesture: { id: 'own2', name: 'Gust of mine', role: 'entrance', duration: 1, tracks: {} },
    },
    { type: 'gesture.forgetOwn', id: 'own1' },
    { type: 'phrases.change', layers: [], remove: ['words'] },
    { type: 'style.put', style: { id: 'lamp', name: 'Lamp', ...newLook({ letterCase: 'upper' }, { weight: 300 }) } },
    { type: 'style.wear', ids: ['words'], styleId: 'lamp' },
    { type: 'style.dress', ids: ['words'], look: newLook({ family: 'syne' }, { fill: '#54c6c0' }) },
    { type: 'style.forget', id: 'lamp' },
    {
      type: 'group.make',
      group: createLayer('group', { name: 'Flags', start: pin(0), end: pin(8) }, () => 'new-group'),
      ids: ['words'],
      at: 1,
    },
    { type: 'group.dissolve', ids: ['group'], at: 1 },
    { type: 'layer.reparent', ids: ['words'], parentId: 'group', behind: null, at: 1 },
    {
      type: 'effect.put',
      layerId: 'words',
      effect: { id: 'new', kind: 'grain', isOn: true, seed: 3, parameters: { amount: { value: 40, keyframes: [] } } },
      at: 0,
    },
    { type: 'effect.remove', layerId: 'words', id: 'glow' },
    { type: 'effect.order', layerId: 'words', id: 'glow', to: 1 },
    {
      type: 'effect.setTrack',
      layerId: 'words',
      id: 'glow',
      parameter: 'radius',
      track: { value: 8, keyframes: [{ id: 'k1', at: pin(2), value: 30, easing: { type: 'linear' } }] },
    },
    { type: 'mask.put', layerId: 'words', mask: { ...MASK, mode: 'subtract' } },
    { type: 'mask.remove', layerId: 'words', id: MASK.id },
    {
      type: 'layer.setFollow',
      id: 'words',
      follow: {
        layerId: 'group',
        properties: ['position', 'opacity'],
        keepsOwn: true,
        delay: { unit: 'beats', value: 1 },
        damping: 0.4,
        looksAt: false,
      },
    },
    { type: 'layer.setHug', id: layerIds()[0]!, hug: { layerId: 'words', padX: 20, padY: 12, axes: 'both' } },
    {
      type: 'layer.setRepeat',
      id: layerIds()[0]!,
      repeat: {
        way: 'grid',
        count: 6,
        columns: 3,
        step: [40, 30],
        radius: 0,
        turn: 5,
        scale: 0.9,
        fade: 0.8,
        delay: { unit: 'beats', value: 0.5 },
      },
    },
    {
      type: 'wardrobe.set',
      wardrobe: { colours: { accent: '#ffb74a' }, fonts: { display: 'syne' }, logos: {}, from: null },
    },
    { type: 'wardrobe.swap', a: 'ground', b: 'text' },
    { type: 'piece.recolour', changes: [{ from: '#EEE9DF', to: '@text' }] },
    { type: 'listen.put', layerId: layerIds()[0]!, listen: LISTEN },
    { type: 'listen.remove', layerId: 'words', id: 'heard' },
    { type: 'layer.setMatte', id: 'words', matte: { layerId: 'group', channel: 'luminance', inverted: true } },
    { type: 'format.order', id: pieceWithSong().piece.formats[0]!.id, to: 1 },
    {
      type: 'layer.setInFormat',
      id: 'words',
      formatId: pieceWithSong().piece.formats[1]!.id,
      property: 'size',
      value: 60,
    },
    { type: 'slots.fill', id: 'made', values: { name: 'Teo Marsh' } },
    { type: 'group.stretch', id: 'made', end: pin(10) },
    { type: 'layer.setSlot', id: 'words', slot: { slotId: 'name', part: 'text' } },
    {
      type: 'layer.setConstraints',
      ids: ['words'],
      constraints: { horizontal: 'left', vertical: 'bottom', within: 'safe-area', scales: 'reading' },
    },
  ];
  /** The standard document with words, a gesture, and something saved of each kind. */
  const furnished = (): Piece => {
    const { piece, layer } = pieceWithSong();
    const words = createLayer(
      'text',
      { name: 'Words', start: pin(1), end: pin(5), content: { text: 'nine days', family: 'syne' } },
      countingIds('w'),
    );
    return {
      ...piece,
      layers: [
        { ...layer, gestures: [newGestureUse('dawn', 'entrance', 'g1')] },
        {
          ...words,
          id: 'words',
          effects: [
            { id: 'glow', kind: 'glow', isOn: true, seed: 0, parameters: {} },
            { id: 'tint', kind: 'tint', isOn: true, seed: 0, parameters: {} },
          ],
          masks: [MASK],
          listens: [LISTEN],
        },
        { ...words, id: 'inside', parentId: 'group' },
        { ...words, id: 'filled', parentId: 'made', slot: { slotId: 'name', part: 'text' } },
        {
          ...createLayer('group', { name: 'Made', start: pin(1), end: pin(5) }, () => 'made'),
          madeFrom: {
            id: 'plumb',
            version: 1,
            name: 'Plumb',
            slots: [
              { id: 'name', name: 'Name', kind: 'text', help: '', sample: 'Name', isNeeded: true, mirrors: false },
            ],
            timing: { stretches: 'hold', unit: 'beats', leastReading: true, endsOnBeat: true },
            values: {},
            isMirrored: false,
          },
        },
        createLayer(
          'group',
          { name: 'Group', start: pin(0), end: pin(8), values: { position: [40, 20], rotation: 12 } },
          () => 'group',
        ),
        createLayer(
          'piece',
          { name: 'Within', start: pin(0), end: pin(8), content: { pieceId: 'inner', mediaId: 'inner-1' } },
          () => 'within',
        ),
      ],
      media: [...piece.media, { id: 'inner-1', hash: 'd'.repeat(64), kind: 'piece', name: 'Inner' }],
      wardrobe: { colours: { ground: '#11151b', text: '#eee9df' }, fonts: {}, logos: {}, from: null },
      guides: [{ id: 'third', axis: 'y', at: 1 / 3 }],
      gestures: [{ id: 'own1', name: 'Mine', role: 'exit', duration: 1, tracks: {} }],
      styles: [{ id: 'lamp', name: 'Lamp', ...newLook({ family: 'fraunces' }, { weight: 800 }) }],
    };
  };
  it('all have a sample', () => {
    expect(Object.keys(EDITS).filter((type) => !samples.some((s) => s.type === type))).toEqual([]);
  });
  it.each(samples.map((edit) => [edit.type, edit] as const))(
    '%s changes the document, leaves it valid, and undo and redo are exact',
    (_type, edit) => {
      const piece = furnished();
      const result = apply(piece, [edit]);
      expect(result.patches.length).toBeGreaterThan(0);
      expect(parsePiece(JSON.parse(JSON.stringify(result.piece)))).toMatchObject({ ok: true });
      const history = recordStep(EMPTY_HISTORY, result, null);
      const undone = undo(result.piece, history)!;
      expect(undone.piece).toEqual(piece);
      expect(redo(undone.piece, undone.history)?.piece).toEqual(result.piece);
    },
  );

  it('leaves locked layers alone', () => {
    const { piece } = pieceWithSong();
    const locked = apply(piece, [{ type: 'layer.setFlags', ids: layerIds(), locked: true }]).piece;
    for (const edit of [
      { type: 'layer.remove', ids: layerIds() },
      { type: 'layer.move', ids: layerIds(), seconds: 1 },
      { type: 'keys.remove', refs: [ref('k-beat')] },
    ] satisfies Edit[])
      expect(apply(locked, [edit]).patches).toEqual([]);
  });

  it('replaces a keyframe at the same time instead of doubling it', () => {
    const { piece } = pieceWithSong();
    const changed = apply(piece, [
      { type: 'value.set', layerId: layerIds()[0]!, property: 'opacity', value: 0.9, at: pin(2) },
    ]).piece;
    const keys = trackOf(changed.layers[0]!, 'opacity')!.keyframes;
    expect(keys).toHaveLength(6);
    expect(keys[0]).toMatchObject({ id: 'k-beat', value: 0.9 });
  });

  it('refuses a value of the wrong kind and clips one out of range', () => {
    const { piece } = pieceWithSong();
    expect(apply(piece, [{ type: 'value.set', layerId: layerIds()[0]!, property: 'fill', value: 3 }]).patches).toEqual(
      [],
    );
    const clipped = apply(piece, [
      { type: 'value.set', layerId: layerIds()[0]!, property: 'cornerRadius', value: -4 },
    ]).piece;
    expect(trackOf(clipped.layers[0]!, 'cornerRadius')!.value).toBe(0);
  });

  it('keeps pins on the lattice when a selection is stretched or reversed', () => {
    const { piece } = pieceWithSong();
    const scaled = apply(piece, [
      { type: 'keys.scaleTime', refs: [ref('k-beat'), ref('k-fraction')], pivot: 1.5, factor: 2 },
    ]).piece;
    const stretched = trackOf(scaled.layers[0]!, 'opacity')!.keyframes;
    expect(stretched.find((k) => k.id === 'k-fraction')!.at).toMatchObject({ kind: 'pinned', to: { beat: 7.5 } });
    const reversed = apply(piece, [{ type: 'keys.reverse', refs: [ref('k-beat'), ref('k-fraction')] }]).piece.layers[0]!
      .tracks.opacity!.keyframes;
    expect(reversed.find((k) => k.id === 'k-fraction')!.at).toMatchObject({ to: { beat: 2 } });
    expect(reversed.find((k) => k.id === 'k-beat')!.at).toMatchObject({ to: { beat: 4.75 } });
  });
});

describe('history', () => {
  it('makes one step of a drag and separate steps of separate edits', () => {
    let { piece } = pieceWithSong();
    const start = piece;
    let history: History = EMPTY_HISTORY;
    const doEdit = (edit: Edit, gesture: string | null) => {
      const result = apply(piece, [edit]);
      history = recordStep(history, result, gesture);
      piece = result.piece;
    };
    for (let i = 1; i <= 30; i++)
      doEdit({ type: 'value.set', layerId: piece.layers[0]!.id, property: 'rotation', value: i }, 'drag-1');
    doEdit({ type: 'layer.rename', id: piece.layers[0]!.id, name: 'A' }, null);
    doEdit({ type: 'layer.move', ids: [piece.layers[0]!.id], seconds: 0.1 }, 'drag-2');
    doEdit({ type: 'layer.move', ids: [piece.layers[0]!.id], seconds: 0.2 }, 'drag-2');
    expect(history.done).toHaveLength(3);
    expect(history.done[0]!.patches).toHaveLength(1);
    for (let step = undo(piece, history); step; step = undo(piece, history)) ({ piece, history } = step);
    expect(piece).toEqual(start);
    for (let step = redo(piece, history); step; step = redo(piece, history)) ({ piece, history } = step);
    expect(piece.layers[0]).toMatchObject({ name: 'A', tracks: { rotation: { value: 30 } } });
  });
  it('survives being written as JSON', () => {
    const { piece } = pieceWithSong();
    const result = apply(piece, [{ type: 'layer.remove', ids: [piece.layers[0]!.id] }]);
    const history = JSON.parse(JSON.stringify(recordStep(EMPTY_HISTORY, result, null))) as History;
    expect(undo(result.piece, history)?.piece).toEqual(piece);
  });
});

describe('documents from outside', () => {
  it('are told apart: no piece, unknown version, damaged', () => {
    expect(parsePiece('x')).toMatchObject({ ok: false, problem: { code: 'NOT_A_PIECE' } });
    expect(parsePiece({ version: 99 })).toMatchObject({
      ok: false,
      problem: { code: 'UNKNOWN_VERSION', detail: '99' },
    });
    expect(parsePiece({ ...pieceWithSong().piece, name: '' })).toMatchObject({
      ok: false,
      problem: { code: 'INVALID' },
    });
    expect(parsePiece({ ...pieceWithSong().piece, leadFormatId: 'none' })).toMatchObject({
      ok: false,
      problem: { code: 'INVALID' },
    });
  });
  it('are refused if a track holds a value of another kind', () => {
    const { piece } = pieceWithSong();
    const broken = JSON.parse(JSON.stringify(piece)) as { layers: { tracks: Record<string, unknown> }[] };
    broken.layers[0]!.tracks.fill = { value: 5, keyframes: [] };
    expect(parsePiece(broken)).toMatchObject({ ok: false });
  });
  it('every layer kind has defaults for each of its properties', () => {
    for (const kind of LAYER_KIND_IDS)
      for (const property of Object.keys(kindProperties(kind))) expect(PROPERTY_IDS).toContain(property);
  });
});
