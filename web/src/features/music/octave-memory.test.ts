import { beforeEach, describe, expect, it } from '@jest/globals';
import type { Piece } from '@core/piece';
import { newPiece, steadyAnalysis } from '../../../../tests/helpers/documents';
import { rememberOctave, rememberedFactor } from './octave-memory';

const kept = new Map<string, string>();
Object.defineProperty(globalThis, 'localStorage', {
  configurable: true,
  value: {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => kept.set(key, value),
  },
});
beforeEach(() => kept.clear());

const wearing = (id: string): Piece => {
  const piece = newPiece('Kites');
  return { ...piece, wardrobe: { ...piece.wardrobe, from: { id, version: 1 } } };
};
/** A song heard at a tempo, with another one that fits as well. */
const song = (bpm: number, other: number) => ({
  ...steadyAnalysis(bpm, 0.2, 60),
  tempi: [
    { bpm, likelihood: 0.5 },
    { bpm: other, likelihood: 0.4 },
  ],
});

describe('which of two tempi was chosen', () => {
  it('is done again with the next song of the same style, and with no other', () => {
    rememberOctave(wearing('harbour'), 'slow');
    expect(rememberedFactor(wearing('harbour'), song(142, 71))).toBe(0.5);
    expect(rememberedFactor(wearing('harbour'), song(71, 142))).toBe(1);
    expect(rememberedFactor(wearing('kites'), song(142, 71))).toBe(1);
    rememberOctave(wearing('harbour'), 'quick');
    expect(rememberedFactor(wearing('harbour'), song(71, 142))).toBe(2);
  });
  it('changes no song whose tempo is clear', () => {
    rememberOctave(newPiece('Plain'), 'slow');
    expect(rememberedFactor(newPiece('Plain'), steadyAnalysis(142, 0.2, 60))).toBe(1);
    expect(rememberedFactor(newPiece('Plain'), song(142, 71))).toBe(0.5);
  });
  it('is forgotten for the styles of longest ago, and where what is stored cannot be read', () => {
    for (let i = 0; i < 60; i++) rememberOctave(wearing(`brand-${i}`), 'slow');
    expect(rememberedFactor(wearing('brand-0'), song(142, 71))).toBe(1);
    expect(rememberedFactor(wearing('brand-59'), song(142, 71))).toBe(0.5);
    kept.set('estrella-octaves', '{"use none": "sideways"');
    expect(rememberedFactor(newPiece('Plain'), song(142, 71))).toBe(1);
  });
});
