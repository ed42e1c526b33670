import { createSystem, defaultConfig, defineConfig } from '@chakra-ui/react';

/** Chakra's tokens, bound to the custom properties of desk.css, where both variants are written. */
const config = defineConfig({
  globalCss: { 'html, body': { bg: 'var(--ground)', color: 'var(--text)' } },
  theme: {
    tokens: {
      fonts: {
        body: { value: "'Spline Sans Variable', sans-serif" },
        heading: { value: "'Spline Sans Variable', sans-serif" },
        mono: { value: "'Spline Sans Mono Variable', monospace" },
      },
    },
    semanticTokens: {
      colors: {
        bg: {
          DEFAULT: { value: 'var(--surface)' },
          panel: { value: 'var(--raised)' },
          subtle: { value: 'var(--surface)' },
          muted: { value: 'var(--raised)' },
          emphasized: { value: 'var(--line)' },
        },
        fg: { DEFAULT: { value: 'var(--text)' }, muted: { value: 'var(--muted)' }, subtle: { value: 'var(--muted)' } },
        border: {
          DEFAULT: { value: 'var(--line)' },
          muted: { value: 'var(--line)' },
          subtle: { value: 'var(--line)' },
          emphasized: { value: 'var(--muted)' },
        },
      },
    },
  },
});

export const system = createSystem(defaultConfig, config);
