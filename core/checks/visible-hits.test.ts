import { describe, expect, it } from '@jest/globals';
import { GESTURES, GESTURE_IDS, newGestureUse } from '@core/motion';
import type { GestureUse } from '@core/motion';
import { visibleHits } from '@core/checks';
import { applyEdits, createLayer, createPiece, resolveTimes } from '@core/piece';
import type { Piece, TextLayer } from '@core/piece';
import { FRAME_RATES } from '@core/time';
import { countingIds, pin } from '../../tests/helpers/documents';

// A piece without music keeps typed time: 120 beats a minute, so a beat is half a second.
const ids = countingIds('h');
const words = (
  gestures: readonly GestureUse[],
  start = pin(2),
  end = pin(10),
  text = 'nine days of wind',
): TextLayer => ({
  ...(createLayer('text', { name: 'w', start, end, content: { text, family: 'syne' } }, ids) as TextLayer),
  gestures: [...gestures],
});
const pieceOf = (...layers: Piece['layers']): Piece => ({
  ...createPiece(
    { name: 'p', formats: [{ id: 'wide', name: 'Wide', width: 1920, height: 1080 }], frameRate: FRAME_RATES['30'] },
    ids,
  ),
  layers,
  end: pin(40),
});
const hits = (piece: Piece) => visibleHits(piece, resolveTimes(piece, null));
const use = (gesture: keyof typeof GESTURES, role: GestureUse['role'], more: Partial<GestureUse> = {}): GestureUse => ({
  ...newGestureUse(gesture, role, ids()),
  ...more,
});

describe('gestures in the sync check', () => {
  it('are listed with where they are seen to hit', () => {
    // Jumps in at once: its visible hit is the layer's start, on the beat.
    const [hit] = hits(pieceOf(words([use('beacon', 'entrance', { unit: 'whole' })])));
    expect(hit).toMatchObject({ properties: [], keys: [], isPinned: true, beat: 2 });
    expect(Math.abs(hit!.late)).toBeLessThan(0.02);
  });
  it('are found late where they only begin on the beat, and land in one step', () => {
    const piece = pieceOf(
      words([
        use('nova', 'entrance', {
          unit: 'whole',
          duration: { unit: 'beats', value: 1.5 },
          parameters: { overshoot: 0.5 },
        }),
      ]),
    );
    const [before] = hits(piece);
    expect(before!.kind).toBe('landing');
    expect(before!.late).not.toBeCloseTo(0, 2);
    const landed = applyEdits(
      piece,
      [
        {
          type: 'gesture.shift',
          shifts: [{ layerId: before!.layerId, useId: before!.useId!, seconds: -before!.late }],
        },
      ],
      resolveTimes(piece, null),
    ).piece;
    const [after] = hits(landed);
    expect(after!.beat).toBe(before!.beat);
    expect(Math.abs(after!.late)).toBeLessThan(0.002);
  });
  it.each(['filament', 'shutter', 'nova'] as const)('%s that lands its peak has arrived there', (gesture) => {
    // A plain arrival would be seen as it sets off; drawn lines swell until they are filled.
    const [hit] = hits(
      pieceOf(
        words([
          use(gesture, 'entrance', {
            unit: 'whole',
            duration: { unit: 'beats', value: 2 },
            parameters: gesture === 'filament' ? {} : { overshoot: 0 },
            at: pin(4),
            landing: 'peak',
          }),
        ]),
      ),
    );
    expect(hit).toMatchObject({ beat: 4, kind: 'landing' });
    expect(Math.abs(hit!.late)).toBeLessThan(1e-6);
  });
  it('on quarters of a beat are on the lattice, beside them they are not', () => {
    const at = (beat: number) => hits(pieceOf(words([use('beacon', 'entrance', { unit: 'whole' })], pin(beat))))[0];
    expect(at(2.25)).toMatchObject({ beat: 2.25 });
    expect(Math.abs(at(2.3)!.late)).toBeGreaterThan(0.05);
  });
  it('with a moment of their own take that along and leave the layer where it is', () => {
    const piece = pieceOf(
      words([
        use('meteor', 'entrance', {
          unit: 'whole',
          at: pin(4),
          landing: 'start',
          duration: { unit: 'seconds', value: 0.83 },
        }),
      ]),
    );
    const [hit] = hits(piece);
    const landed = applyEdits(
      piece,
      [{ type: 'gesture.shift', shifts: [{ layerId: hit!.layerId, useId: hit!.useId!, seconds: 0.05 }] }],
      resolveTimes(piece, null),
    ).piece;
    expect(landed.layers[0]!.start).toEqual(piece.layers[0]!.start);
    expect(hits(landed)[0]!.at).toBeCloseTo(hit!.at + 0.05, 6);
  });
  it('that come again speak once, for their worst return; one that lasts as long as the layer does not hit', () => {
    const found = hits(
      pieceOf(
        words([use('pulsar', 'accent', { every: 1, duration: { unit: 'beats', value: 0.9 } }), use('drift', 'accent')]),
      ),
    );
    expect(found).toHaveLength(1);
    // Its table says that the swell peaks on the beat.
    expect(Math.abs(found[0]!.late)).toBeLessThan(0.03);
  });
  it('on a rhythm are held against it unit by unit', () => {
    const stagger = { ...newGestureUse('flare', 'accent', '').stagger, rhythm: { pattern: 'x', step: 1.2 } };
    const [hit] = hits(pieceOf(words([use('flare', 'accent', { at: pin(3), landing: 'peak', stagger })])));
    // Words on 3, 4.2, 5.4 and 6.6: the worst is a fifth of a beat off its half beat.
    expect(Math.abs(hit!.late)).toBeCloseTo(0.1, 1);
  });
  it('every gesture of the table hits within its own time, or stays', () => {
    for (const id of GESTURE_IDS) {
      const role = GESTURES[id].roles[0];
      const given = use(id, role, role === 'accent' ? { at: pin(4), every: null } : {});
      const found = hits(pieceOf(words([given], pin(2), pin(20), '12 kites')));
      if (given.duration.unit === 'stay' || id === 'altimeter') expect(found).toHaveLength(0);
      else {
        expect([id, found.length]).toEqual([id, 1]);
        expect(found[0]!.at).toBeGreaterThanOrEqual(1 - 0.001);
        expect(found[0]!.at).toBeLessThanOrEqual(10);
      }
    }
  });
});
