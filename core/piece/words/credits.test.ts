import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  createPiece,
  creditRows,
  readCredits,
  resolveTimes,
  rollCredits,
  rollMotion,
  writeCredits,
  trackOf,
} from '@core/piece';
import type { CreditRow } from '@core/piece';
import { evaluateTrack, prepareTrack } from '@core/motion';
import { prepareScene, propertyAt } from '@core/scene';
import { FRAME_RATES, frameMiddle, secondsToFrame } from '@core/time';
import { countingIds } from '../../../tests/helpers/documents';

const plan = { from: 1, length: 8, hold: 2, size: 40, colour: '#ffffff', accent: '#ffb74a' };
const piece = (rate: keyof typeof FRAME_RATES) =>
  createPiece(
    { name: 'p', formats: [{ id: 'wide', name: 'Wide', width: 1920, height: 1080 }], frameRate: FRAME_RATES[rate] },
    countingIds(),
  );

describe('rolling credits', () => {
  it('reads lists however they are parted, and writes them back', () => {
    expect(
      readCredits(
        'Thanks\n\nKite maker\tInés Vardal\nWind reader - Teo Marsh\nNight pilot: Oona Castell\nLamps   the harbour\nTea; everyone\n\n',
      ),
    ).toEqual([
      { kind: 'heading', text: 'Thanks' },
      { kind: 'gap' },
      { kind: 'name', role: 'Kite maker', name: 'Inés Vardal' },
      { kind: 'name', role: 'Wind reader', name: 'Teo Marsh' },
      { kind: 'name', role: 'Night pilot', name: 'Oona Castell' },
      { kind: 'name', role: 'Lamps', name: 'the harbour' },
      { kind: 'name', role: 'Tea', name: 'everyone' },
    ]);
    const rows = readCredits('Crew\n\nKites\tInés\n');
    expect(readCredits(writeCredits(rows))).toEqual(rows);
  });

  it('moves whole pixels every frame, straight up, and rests at the end', () => {
    for (const rate of ['30', '23.976', '59.94'] as const) {
      const p = piece(rate);
      const rows = readCredits(Array.from({ length: 40 }, (_, i) => `Part ${i}\tName ${i}`).join('\n'));
      const layers = rollCredits(p, rows, plan, countingIds('c'));
      const times = resolveTimes({ ...p, layers }, null);
      for (const layer of layers) {
        const track = prepareTrack(layer.tracks.position!, times.timeOf);
        const first = secondsToFrame(plan.from, p.frameRate);
        const { frames, speed, end } = rollMotion(rows.length, plan, p.formats[0]!, p.frameRate);
        let before: number | null = null;
        for (let k = 0; k <= frames; k++) {
          const [x, y] = evaluateTrack(track, frameMiddle(first + k, p.frameRate)) as [number, number];
          expect(x).toBe((trackOf(layer, 'position')!.value as [number, number])[0]);
          expect(Math.abs(y - Math.round(y))).toBeLessThan(1e-6);
          if (before !== null) expect(before - y).toBeCloseTo(speed, 6);
          before = y;
        }
        expect(evaluateTrack(track, times.timeOf(layer.end) - 0.01)).toEqual([
          trackOf(layer, 'position')!.value && (trackOf(layer, 'position')!.value as [number, number])[0],
          end,
        ]);
      }
    }
  });

  it('takes about the wished time, and begins below the frame', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 120 }), fc.double({ min: 2, max: 60, noNaN: true }), (rows, length) => {
        const format = { id: 'w', name: 'w', width: 1920, height: 1080 };
        const m = rollMotion(rows, { ...plan, length }, format, FRAME_RATES['30']);
        expect(m.start - m.end).toBe(m.speed * m.frames);
        expect(m.start - (rows * plan.size * 1.5) / 2).toBeGreaterThanOrEqual(540 - 1);
        // One pixel a frame is the slowest there is; faster speeds come within half a pixel a frame of the wish.
        if (m.speed > 1)
          expect(Math.abs((m.start - m.end) / (length * 30) - m.speed)).toBeLessThan(
            0.5 + m.speed / (length * 30) + 0.05 * m.speed,
          );
      }),
      { seed: 31 },
    );
  });

  it('moves whole pixels in the other formats too, where that changes its size little', () => {
    const base = piece('30');
    const p = {
      ...base,
      formats: [
        ...base.formats,
        { id: 'tall', name: 'Tall', width: 1080, height: 1920 },
        { id: 'small', name: 'Small', width: 1280, height: 720 },
      ],
    };
    const rows = readCredits(Array.from({ length: 60 }, (_, i) => `Part ${i}\tName ${i}`).join('\n'));
    const layers = rollCredits(p, rows, { ...plan, length: 14 }, countingIds('c'));
    const { speed, frames } = rollMotion(rows.length, { ...plan, length: 14 }, p.formats[0]!, p.frameRate);
    expect(speed).toBeGreaterThan(3);
    for (const id of ['wide', 'tall', 'small']) {
      const scene = prepareScene({ ...p, layers }, resolveTimes({ ...p, layers }, null), id);
      for (const layer of scene.layers) {
        const y = (k: number) =>
          (propertyAt(layer, 'position', frameMiddle(30 + k, p.frameRate)) as [number, number])[1] * layer.fit;
        const step = y(0) - y(1);
        expect(Math.abs(step - Math.round(step))).toBeLessThan(1e-6);
        expect(Math.round(step)).toBeGreaterThanOrEqual(1);
        for (let k = 0; k < frames; k += 7) expect(y(0) - y(k)).toBeCloseTo(step * k, 5);
      }
    }
  });

  it('is read back from its layers', () => {
    const p = piece('30');
    const rows: CreditRow[] = readCredits('Crew\n\nKites\tInés Vardal\nWind\tTeo Marsh');
    expect(creditRows({ ...p, layers: rollCredits(p, rows, plan, countingIds('d')) })).toEqual(rows);
  });
});
