import { describe, expect, it } from '@jest/globals';
import { colourToOklab, isColour, mixColours } from '@core/colour';

describe('colours', () => {
  it('convert to the published Oklab values', () => {
    // B. Ottosson, "A perceptual color space for image processing", 2020: white is (1, 0, 0); sRGB red is (0.6280,
    // 0.2249, 0.1258).
    const [l, a, b] = colourToOklab('#ff0000');
    expect([l, a, b].map((v) => Number(v.toFixed(4)))).toEqual([0.628, 0.2249, 0.1258]);
    expect(colourToOklab('#ffffff')[0]).toBeCloseTo(1, 6);
  });
  it('keep their ends and mix alpha', () => {
    expect(mixColours('#112233', '#445566', 0)).toBe('#112233');
    expect(mixColours('#112233', '#445566', 1)).toBe('#445566');
    expect(mixColours('#ff0000', '#ff000000', 0.5)).toBe('#ff000080');
    expect(mixColours('#ff000000', '#00ff0000', 0.5)).toBe('#00000000');
  });
  it('take only hex text', () => {
    expect(['#fff', 'red', '#12345g', '#1234567'].map(isColour)).toEqual([false, false, false, false]);
    expect(isColour('#A1b2C3d4')).toBe(true);
  });
});
