import { describe, expect, it } from '@jest/globals';
import { runThrough } from '@core/checks';
import type { CheckId } from '@core/checks';
import { NEW_GROUP_TIME, createLayer, ownTrack, resolveTimes } from '@core/piece';
import type { GroupTime, Layer, Piece, PropertyId } from '@core/piece';
import type { TrackValue } from '@core/motion';
import { freeMoment } from '@core/time';
import { countingIds, newPiece } from '../../tests/helpers/documents';

const ids = countingIds('l');
const found = (piece: Piece, check: CheckId) =>
  runThrough(
    {
      piece,
      times: resolveTimes(piece, null),
      layoutText: () => {
        throw new Error('no words here');
      },
    },
    [check],
  );
function moving(property: PropertyId, values: readonly TrackValue[], seconds: number, parentId: string | null): Layer {
  const layer = createLayer(
    'rectangle',
    { name: 'kite', start: freeMoment(0), end: freeMoment(8), values: { dimensions: [200, 120] } },
    ids,
  );
  ownTrack(layer, property).keyframes = values.map((value, i) => ({
    id: `k${i}`,
    at: freeMoment((i * seconds) / (values.length - 1)),
    value,
    easing: { type: 'linear' },
  }));
  return { ...layer, parentId };
}
function looped(values: readonly TrackValue[], property: PropertyId, time: Partial<GroupTime> = {}): Piece {
  const group = createLayer(
    'group',
    {
      name: 'Again',
      start: freeMoment(0),
      end: freeMoment(8),
      content: { time: { ...NEW_GROUP_TIME, repeat: { unit: 'seconds', value: 2 }, ...time } },
    },
    ids,
  );
  return { ...newPiece('Loop'), end: freeMoment(8), layers: [moving(property, values, 2, group.id), group] };
}
const told = (piece: Piece) => found(piece, 'loops').map(({ text, at }) => [text, Math.round((at ?? 0) * 10) / 10]);

describe('groups that play again', () => {
  it('and leap back to where they began are told of, with the moment', () => {
    expect(
      told(
        looped(
          [
            [0, 0],
            [600, 0],
          ],
          'position',
        ),
      ),
    ).toEqual([['Again jumps where it loops.', 2]]);
    expect(told(looped([1, 0.3], 'opacity'))).toEqual([['Again jumps where it loops.', 2]]);
  });
  it('and come back, turn, stand, or play once, are well', () => {
    expect(
      told(
        looped(
          [
            [0, 0],
            [600, 0],
            [0, 0],
          ],
          'position',
        ),
      ),
    ).toEqual([]);
    expect(told(looped([0, 360], 'rotation'))).toEqual([]);
    expect(
      told(
        looped(
          [
            [0, 0],
            [600, 0],
          ],
          'position',
          { turns: true },
        ),
      ),
    ).toEqual([]);
    expect(
      told(
        looped(
          [
            [0, 0],
            [600, 0],
          ],
          'position',
          { repeat: null },
        ),
      ),
    ).toEqual([]);
    expect(
      told(
        looped(
          [
            [0, 0],
            [0, 0],
          ],
          'position',
        ),
      ),
    ).toEqual([]);
  });
});

describe('a piece that is meant to loop', () => {
  const piece = (values: readonly TrackValue[], hasLoopCue: boolean): Piece => {
    const base = newPiece('Loop');
    return {
      ...base,
      end: freeMoment(4),
      sheet: { ...base.sheet, hasLoopCue },
      layers: [moving('position', values, 4, null)],
    };
  };
  it('is told of where its end and its beginning do not meet', () => {
    expect(
      found(
        piece(
          [
            [0, 0],
            [600, 0],
          ],
          true,
        ),
        'loops',
      ),
    ).toHaveLength(1);
    expect(
      found(
        piece(
          [
            [0, 0],
            [600, 0],
            [0, 0],
          ],
          true,
        ),
        'loops',
      ),
    ).toEqual([]);
    expect(
      found(
        piece(
          [
            [0, 0],
            [600, 0],
          ],
          false,
        ),
        'loops',
      ),
    ).toEqual([]);
  });
});

describe('the first second', () => {
  const withPicture = (dimensions: [number, number], start: number): Piece => ({
    ...newPiece('Face'),
    end: freeMoment(8),
    media: [{ id: 'm', hash: 'b'.repeat(64), kind: 'picture', name: 'face.png', width: 800, height: 800 }],
    layers: [
      createLayer(
        'picture',
        {
          name: 'face',
          start: freeMoment(start),
          end: freeMoment(8),
          values: { dimensions },
          content: { mediaId: 'm' },
        },
        ids,
      ),
    ],
  });
  it('without anything large is a hint where there are pictures', () => {
    const small = found(withPicture([12, 12], 0), 'catch');
    expect(small).toMatchObject([{ severity: 'hint', at: 0 }]);
    expect(found(withPicture([30, 30], 3), 'catch')).toHaveLength(1);
    expect(found(withPicture([30, 30], 0.5), 'catch')).toEqual([]);
    expect(found({ ...newPiece('None'), end: freeMoment(8) }, 'catch')).toEqual([]);
  });
});
