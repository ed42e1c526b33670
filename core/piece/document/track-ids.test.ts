import { describe, expect, it } from '@jest/globals';
import {
  EMPTY_HISTORY,
  animatedTracks,
  applyEdits,
  copyLayers,
  createLayer,
  effectTrackId,
  findKey,
  maskTrackId,
  recordStep,
  resolveTimes,
  trackIdSchema,
  trackLabel,
  undo,
} from '@core/piece';
import type { Edit, Layer, Piece } from '@core/piece';
import type { Track } from '@core/motion';
import { freeMoment } from '@core/time';
import { pieceWithSong, pin, steadyAnalysis } from '../../../tests/helpers/documents';

const analysis = steadyAnalysis(120, 0.5, 60);
const keyed = (name: string, values: readonly number[]): Track => ({
  value: values[0]!,
  keyframes: values.map((value, i) => ({
    id: `${name}${i}`,
    at: pin(i * 2),
    value,
    easing: { type: 'linear' as const },
  })),
});
const piece: Piece = {
  ...pieceWithSong().piece,
  layers: [
    {
      ...createLayer('rectangle', { name: 'Plate', start: freeMoment(0), end: freeMoment(8) }, () => 'plate'),
      tracks: { opacity: keyed('o', [0, 1]) },
      effects: [{ id: 'a/b', kind: 'glow', isOn: true, seed: 0, parameters: { radius: keyed('r', [0, 40, 10]) } }],
      masks: [
        {
          id: 'm',
          name: 'Sail',
          mode: 'add',
          inverted: false,
          d: 'M0 0L9 0L9 9Z',
          box: [9, 9],
          rule: 'nonzero',
          forms: [],
          tracks: { feather: keyed('f', [0, 12]) },
        },
      ],
    } as Layer,
  ],
};
const radius = effectTrackId('a/b', 'radius');
const feather = maskTrackId('m', 'feather');
const times = resolveTimes(piece, analysis);
const apply = (...edits: Edit[]) => applyEdits(piece, edits, times);
const layer = (of: Piece) => of.layers[0]!;

describe('keyframes of effects and masks', () => {
  it('are listed behind those of the layer, each with its name', () => {
    expect(animatedTracks(layer(piece)).map(([id]) => trackLabel(layer(piece), id))).toEqual([
      'Opacity',
      'Glow: Radius',
      'Sail: Feather',
    ]);
  });
  it('are moved, eased, stretched and taken away as those of properties are', () => {
    const ref = { layerId: 'plate', property: radius, keyId: 'r1' };
    const moved = apply(
      { type: 'keys.place', moves: [{ ref, at: pin(7) }] },
      { type: 'keys.setEasing', refs: [ref], easing: { type: 'hold' } },
    );
    expect(findKey(moved.piece, ref)).toMatchObject({ at: { to: { beat: 7 } }, easing: { type: 'hold' } });
    // They stand in the order of time.
    expect(layer(moved.piece).effects[0]!.parameters.radius!.keyframes.map((key) => key.id)).toEqual([
      'r0',
      'r2',
      'r1',
    ]);
    expect(undo(moved.piece, recordStep(EMPTY_HISTORY, moved, null))?.piece).toEqual(piece);
    const gone = apply({
      type: 'keys.remove',
      refs: ['f0', 'f1'].map((keyId) => ({ layerId: 'plate', property: feather, keyId })),
    });
    expect(layer(gone.piece).masks[0]!.tracks.feather).toEqual({ value: 12, keyframes: [] });
  });
  it('are added where there is such a track and the value is of its kind', () => {
    const key = { id: 'new', at: pin(9), value: 5, easing: { type: 'linear' as const } };
    const add = (property: typeof radius, value: unknown = 5) =>
      apply({ type: 'keys.add', keys: [{ layerId: 'plate', property, key: { ...key, value } as typeof key }] });
    expect(layer(add(radius).piece).effects[0]!.parameters.radius!.keyframes).toHaveLength(4);
    expect(add(radius, '#ffffff').patches).toEqual([]);
    expect(add(effectTrackId('nobody', 'radius')).patches).toEqual([]);
    expect(add(effectTrackId('a/b', 'constructor')).patches).toEqual([]);
  });
  it('are listened to by copies as by what was copied, and no more when the effect is gone', () => {
    const listen = {
      id: 'h',
      property: radius,
      source: 'low' as const,
      amount: 5,
      attack: 0,
      release: 0.2,
      smoothing: 0,
      curve: 1,
      range: [0, 1] as [number, number],
    };
    const heard = apply({ type: 'listen.put', layerId: 'plate', listen }).piece;
    let n = 0;
    const [copy] = copyLayers(heard.layers, () => `n${n++}`);
    expect(copy!.listens[0]!.property).toBe(effectTrackId(copy!.effects[0]!.id, 'radius'));
    expect(copy!.effects[0]!.id).not.toBe('a/b');
    const gone = applyEdits(heard, [{ type: 'effect.remove', layerId: 'plate', id: 'a/b' }], times);
    expect(layer(gone.piece).listens).toEqual([]);
    // Colours and what is not there hear nothing.
    for (const property of [effectTrackId('a/b', 'colour'), effectTrackId('x', 'radius'), feather])
      expect(apply({ type: 'listen.put', layerId: 'plate', listen: { ...listen, property } }).patches).toEqual([]);
  });
  it('have ids that are checked', () => {
    for (const id of ['opacity', radius, feather]) expect(trackIdSchema.safeParse(id).success).toBe(true);
    for (const id of ['', 'constructor', 'effect/', 'effect/x', 'mask//', 'x'.repeat(300)])
      expect(trackIdSchema.safeParse(id).success).toBe(false);
  });
});
