import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { DEAD_AFTER_MS, TRANSITIONS, canBecome, createWatch, isOver, statesBefore } from './job-life';

const job = (heartbeat: string, attempt = 1) => ({ id: 'a', attempt, heartbeat });

describe('the life of a job', () => {
  it('ends once and for all, and its table of states is closed', () => {
    for (const [from, to] of Object.entries(TRANSITIONS))
      for (const state of to) expect(canBecome(from as never, state)).toBe(true);
    expect((['succeeded', 'failed', 'canceled'] as const).every(isOver)).toBe(true);
    expect(statesBefore('queued')).toEqual(['running', 'paused']);
    expect(isOver('paused')).toBe(false);
  });
});

describe('the watch over workers', () => {
  it('takes a job for lost when its sign of life has not changed for long enough, and not before', () => {
    const watch = createWatch();
    for (let t = 0; t < DEAD_AFTER_MS; t += 1500) expect(watch([job('x')], t)).toEqual([]);
    expect(watch([job('x')], DEAD_AFTER_MS)).toHaveLength(1);
  });
  it('does so for no job whose worker lives, whatever the clocks on the wall say', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: -3_600_000, max: 3_600_000 }), fc.integer({ min: 1, max: 4000 })), {
          maxLength: 40,
        }),
        (jumps) => {
          const watch = createWatch();
          let now = 0;
          let wall = 1_700_000_000_000;
          for (const [jump, passed] of jumps) {
            now += passed;
            wall += passed + jump + 1; // a new sign of life between two looks
            expect(watch([job(String(wall))], now)).toEqual([]);
          }
        },
      ),
    );
  });
  it('gives everybody the full time again after it slept itself', () => {
    const watch = createWatch();
    watch([job('x')], 0);
    watch([job('x')], 1500);
    expect(watch([job('x')], 3_600_000)).toEqual([]);
    expect(watch([job('x')], 3_600_000 + DEAD_AFTER_MS - 1500)).toEqual([]);
  });
  it('counts each attempt by itself', () => {
    const watch = createWatch();
    for (const t of [0, 2000, 4000]) watch([job('x', 1)], t);
    expect(watch([job('x', 2)], DEAD_AFTER_MS)).toEqual([]);
  });
});
