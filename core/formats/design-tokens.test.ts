import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { readTokens, writeTokens } from '.';

const hex = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`);
const role = fc.constantFrom('ground', 'text', 'accent', 'second-accent', 'my-own-2');

describe('design tokens', () => {
  it('come back as they left', () => {
    fc.assert(
      fc.property(
        fc.dictionary(role, hex, { minKeys: 1 }),
        fc.dictionary(role, fc.constantFrom('fraunces', 'spline-sans-mono', 'own:Lumo')),
        (colours, fonts) => {
          const tokens = { colours: { ...colours }, fonts: { ...fonts } };
          expect(readTokens(writeTokens(tokens))).toEqual({ colours, fonts: { ...fonts } });
        },
      ),
    );
  });
  it('are read from groups, with types from above, references, and both ways to write a colour', () => {
    const file = {
      brand: {
        $type: 'color',
        Lamp: { $value: '#FFB74A' },
        ink: { $value: { colorSpace: 'srgb', components: [0, 0.5, 1], alpha: 0.5 } },
        night: { $value: { colorSpace: 'oklch', components: [0.2, 0.1, 40], hex: '#112233' } },
      },
      use: { Accent: { $type: 'color', $value: '{brand.Lamp}' }, loop: { $type: 'color', $value: '{use.loop}' } },
      type: { display: { $type: 'fontFamily', $value: ['Nobody Sans', 'Fraunces', 'serif'] } },
      space: { small: { $type: 'dimension', $value: { value: 4, unit: 'px' } } },
    };
    expect(readTokens(JSON.stringify(file))).toEqual({
      colours: { lamp: '#ffb74a', ink: '#0080ff80', night: '#112233', accent: '#ffb74a' },
      fonts: { display: 'fraunces' },
    });
  });
  it('are refused by name where there are none', () => {
    expect(readTokens('{')).toEqual({ problem: 'not-json' });
    expect(readTokens('[]')).toEqual({ problem: 'empty' });
    expect(readTokens('{"a":{"$type":"color","$value":7}}')).toEqual({ problem: 'empty' });
    expect(readTokens(' '.repeat(1_000_001))).toEqual({ problem: 'too-large' });
  });
  it('hold no more roles than a wardrobe may, and no names that are not theirs', () => {
    const many = Object.fromEntries(
      Array.from({ length: 200 }, (_, i) => [`c${i}`, { $type: 'color', $value: '#000000' }]),
    );
    const read = readTokens(
      JSON.stringify({ ...many, ['__proto__']: { $type: 'color', $value: '#ffffff' }, 7: many.c1 }),
    );
    expect('problem' in read ? 0 : Object.keys(read.colours).length).toBe(64);
  });
});
