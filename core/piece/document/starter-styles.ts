import { NO_DRESS } from './text-content';
import { newLook } from './text-styles';
import type { TextLook } from './text-styles';

/** Looks to begin with. */
export const STARTER_STYLES: readonly (TextLook & { readonly name: string })[] = [
  {
    name: 'Lamplight',
    ...newLook(
      { family: 'bricolage-grotesque', dress: { ...NO_DRESS, glow: { colour: '#FFB74A80', radius: 0.14 } } },
      { weight: 640, fill: '#FFF3DC' },
    ),
  },
  {
    name: 'Gangplank',
    ...newLook(
      {
        family: 'spline-sans',
        dress: { ...NO_DRESS, band: { per: 'line', colour: '#0D2A38', padX: 0.26, padY: 0.22, radius: 0.04 } },
      },
      { weight: 600, fill: '#EEE9DF', leading: 1.45 },
    ),
  },
  {
    name: 'Signboard',
    ...newLook(
      {
        family: 'big-shoulders-display',
        letterCase: 'upper',
        dress: { ...NO_DRESS, solid: { colour: '#B8432E', far: '#5E1E17', angle: 55, depth: 0.16 } },
      },
      { weight: 900, fill: '#FFE2B0', tracking: 0.01 },
    ),
  },
  {
    name: 'Sailcloth',
    ...newLook(
      {
        family: 'grandstander',
        dress: {
          ...NO_DRESS,
          outlines: [
            { colour: '#FFFFFF', width: 0.05 },
            { colour: '#E5583F', width: 0.045 },
          ],
        },
      },
      { weight: 800, fill: '#143749' },
    ),
  },
  {
    name: 'Tide line',
    ...newLook(
      { family: 'fraunces', italic: true, gradient: 'linear' },
      { weight: 520, fill: '#F4EDE0', fillEnd: '#54C6C0', gradientAngle: 90, tracking: -0.01 },
    ),
  },
  {
    name: 'Logbook mark',
    ...newLook(
      { family: 'literata', dress: { ...NO_DRESS, rule: { kind: 'marker', colour: '#FFB74AB0', thickness: 0.42 } } },
      { weight: 560, fill: '#1B222B', leading: 1.3 },
    ),
  },
  {
    name: 'Night cable',
    ...newLook(
      { family: 'recursive', dress: { ...NO_DRESS, long: { colour: '#0B0E13', angle: 45, length: 1.2 } } },
      { weight: 800, axisB: 1, lean: 10, fill: '#9CCB86' },
    ),
  },
  {
    name: 'Hollow moon',
    ...newLook({ family: 'unbounded' }, { weight: 700, fill: '#11151B00', stroke: '#EEE9DF', strokeWidth: 3 }),
  },
];
