import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { createLayer, createMusic, createPiece } from '@core/piece';
import type { Piece } from '@core/piece';
import { FRAME_RATES, freeMoment } from '@core/time';
import { STEPS, STEP_IDS, doneSteps, nextStep } from './steps';
import type { GuidedDesk, StepId } from './steps';

let n = 0;
const newId = () => `id${n++}`;
const empty: Piece = createPiece(
  { name: 'P', formats: [{ id: 'wide', name: 'Wide', width: 1920, height: 1080 }], frameRate: FRAME_RATES['30'] },
  newId,
);
const desk = (change: Partial<GuidedDesk> = {}): GuidedDesk => ({
  piece: empty,
  analysis: null,
  rung: null,
  isPlaying: false,
  editingText: null,
  isRendered: false,
  ...change,
});
const withWords = (text: string): Piece => ({
  ...empty,
  layers: [
    createLayer('text', { name: 'W', start: freeMoment(0), end: freeMoment(2), content: { text, family: 'x' } }, newId),
  ],
});

describe('the steps of a first piece', () => {
  it('finds nothing done in an empty piece', () => {
    expect(doneSteps([], desk())).toEqual([]);
    expect(nextStep([])).toBe('song');
  });

  it('sees words only when they are one’s own and typed to the end', () => {
    expect(STEPS.words.isDone(desk({ piece: withWords('Your text') }))).toBe(false);
    expect(STEPS.words.isDone(desk({ piece: withWords('  ') }))).toBe(false);
    expect(STEPS.words.isDone(desk({ piece: withWords('Nine days'), editingText: 'a' }))).toBe(false);
    expect(STEPS.words.isDone(desk({ piece: withWords('Nine days') }))).toBe(true);
  });

  it('waits for the song to be listened to', () => {
    const media = { id: 'm', kind: 'audio', hash: 'a'.repeat(64), name: 's.wav', duration: 30 } as const;
    const piece: Piece = { ...empty, media: [media], music: createMusic(media) };
    expect(STEPS.song.isDone(desk({ piece }))).toBe(false);
  });

  it('never takes a step back, and is the same object when nothing is new', () => {
    const state = fc.record({ rung: fc.constantFrom(null, 'run-through' as const), isPlaying: fc.boolean() });
    fc.assert(
      fc.property(fc.array(state), fc.subarray([...STEP_IDS]), (states, begun) => {
        let done: readonly StepId[] = begun;
        for (const change of states) {
          const now = doneSteps(done, desk(change));
          expect(done.every((id) => now.includes(id))).toBe(true);
          expect(doneSteps(now, desk(change))).toBe(now);
          done = now;
        }
        expect(nextStep(done) === null).toBe(done.length === STEP_IDS.length);
      }),
    );
  });
});
