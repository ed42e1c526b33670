import { NO_DRESS } from './text-content';
import type { TextLook } from './text-styles';

/** Looks to begin with. Each changes only what makes it. */
export const STARTER_STYLES: readonly (TextLook & { readonly name: string })[] = [
  { name: 'Lamplight', content: { family: 'bricolage-grotesque', gradient: 'none', letterCase: 'typed', dress: { ...NO_DRESS, glow: { colour: '#FFB74A80', radius: 0.14 } } }, values: { weight: 640, fill: '#FFF3DC', tracking: 0, strokeWidth: 0 } },
  { name: 'Gangplank', content: { family: 'spline-sans', gradient: 'none', letterCase: 'typed', dress: { ...NO_DRESS, band: { per: 'line', colour: '#0D2A38', padX: 0.26, padY: 0.22, radius: 0.04 } } }, values: { weight: 600, fill: '#EEE9DF', leading: 1.45, tracking: 0, strokeWidth: 0 } },
  { name: 'Signboard', content: { family: 'big-shoulders-display', gradient: 'none', letterCase: 'upper', dress: { ...NO_DRESS, solid: { colour: '#B8432E', far: '#5E1E17', angle: 55, depth: 0.16 } } }, values: { weight: 900, fill: '#FFE2B0', tracking: 0.01, strokeWidth: 0 } },
  { name: 'Sailcloth', content: { family: 'grandstander', gradient: 'none', letterCase: 'typed', dress: { ...NO_DRESS, outlines: [{ colour: '#FFFFFF', width: 0.05 }, { colour: '#E5583F', width: 0.045 }] } }, values: { weight: 800, fill: '#143749', strokeWidth: 0 } },
  { name: 'Tide line', content: { family: 'fraunces', italic: true, gradient: 'linear', letterCase: 'typed', dress: NO_DRESS }, values: { weight: 520, fill: '#F4EDE0', fillEnd: '#54C6C0', gradientAngle: 90, tracking: -0.01, strokeWidth: 0 } },
  { name: 'Logbook mark', content: { family: 'literata', gradient: 'none', letterCase: 'typed', dress: { ...NO_DRESS, rule: { kind: 'marker', colour: '#FFB74AB0', thickness: 0.42 } } }, values: { weight: 560, fill: '#1B222B', leading: 1.3, strokeWidth: 0 } },
  { name: 'Night cable', content: { family: 'recursive', gradient: 'none', letterCase: 'typed', dress: { ...NO_DRESS, long: { colour: '#0B0E13', angle: 45, length: 1.2 } } }, values: { weight: 800, axisB: 1, lean: 10, fill: '#9CCB86', strokeWidth: 0 } },
  { name: 'Hollow moon', content: { family: 'unbounded', gradient: 'none', letterCase: 'typed', dress: NO_DRESS }, values: { weight: 700, fill: '#11151B00', stroke: '#EEE9DF', strokeWidth: 3 } },
];
