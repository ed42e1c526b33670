import { describe, expect, it } from '@jest/globals';
import { countingIds, pieceWithSong } from '../../../tests/helpers/documents';
import { applyEdits, copyLayers, createLayer, effectTrackId, maskTrackId, parsePiece, resolveTimes } from '../../piece';
import type { Edit, Layer, Piece, TrackId } from '../../piece';
import { freeMoment } from '../../time';
import { prepareScene, sceneAt } from '..';

/** Values of effects and masks that one format has of its own. */
const RADIUS = effectTrackId('soft', 'radius');
const FEATHER = maskTrackId('hole', 'feather');
const layout = (): never => {
  throw new Error('there are no words here');
};

function softPlate(): Piece {
  const { piece } = pieceWithSong();
  const plate = createLayer('rectangle', { name: 'Plate', start: freeMoment(0), end: freeMoment(8) }, () => 'plate');
  const layer: Layer = {
    ...plate,
    effects: [{ id: 'soft', kind: 'blur', isOn: true, seed: 1, parameters: { radius: { value: 4, keyframes: [] } } }],
    masks: [
      {
        id: 'hole',
        name: 'Hole',
        mode: 'subtract',
        inverted: false,
        d: 'M0 0H9V9Z',
        box: [9, 9],
        rule: 'nonzero',
        tracks: {},
        forms: [],
      },
    ],
  };
  return { ...piece, music: null, markers: [], end: freeMoment(8), layers: [layer] };
}
const times = (piece: Piece) => resolveTimes(piece, null);
const edited = (piece: Piece, ...edits: Edit[]): Piece => applyEdits(piece, edits, times(piece)).piece;
const only = (property: TrackId, value: number | null): Edit => ({
  type: 'layer.setInFormat',
  id: 'plate',
  formatId: 'tall',
  property,
  value,
});
const seen = (piece: Piece, formatId: string) => {
  const [item] = sceneAt(prepareScene(piece, times(piece), formatId), 1, layout).items;
  return JSON.stringify(item);
};

describe('effects and masks that differ in one format', () => {
  it('are seen so there and as ever in the others, and taken back as if they never were', () => {
    const piece = softPlate();
    for (const [id, value] of [
      [RADIUS, 40],
      [FEATHER, 12],
    ] as const) {
      const changed = edited(piece, only(id, value));
      expect(seen(changed, 'wide')).toBe(seen(piece, 'wide'));
      expect(seen(changed, 'tall')).not.toBe(seen(piece, 'tall'));
      expect(parsePiece(JSON.parse(JSON.stringify(changed))).ok).toBe(true);
      expect(edited(changed, only(id, null)).layers).toEqual(piece.layers);
    }
  });
  it('keep to the bounds of the value; what is no value of the layer changes nothing', () => {
    const piece = softPlate();
    expect(edited(piece, only(RADIUS, 9999)).layers[0]!.overrides.tall!.parts).toEqual({
      [RADIUS]: { value: 200, keyframes: [] },
    });
    for (const id of ['effect/none/radius', 'effect/soft/none', 'mask/none/feather', 'mask/hole/none'])
      expect(edited(piece, only(id as TrackId, 3)).layers).toEqual(piece.layers);
  });
  it('go with the effect or the mask, and along with a copy', () => {
    const piece = edited(softPlate(), only(RADIUS, 40), only(FEATHER, 12));
    const bare = edited(piece, { type: 'effect.remove', layerId: 'plate', id: 'soft' });
    expect(Object.keys(bare.layers[0]!.overrides.tall!.parts!)).toEqual([FEATHER]);
    const [copy] = copyLayers(piece.layers, countingIds('new'));
    const renamed = [effectTrackId(copy!.effects[0]!.id, 'radius'), maskTrackId(copy!.masks[0]!.id, 'feather')];
    expect(Object.keys(copy!.overrides.tall!.parts!).sort()).toEqual(renamed.sort());
  });
});
