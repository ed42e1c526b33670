/** The colours of the interface, at night and on paper. Their contrast is checked in both by the browser tests. */
export const PALETTE = {
  ground: { night: '#11151b', paper: '#f6f2ea' },
  surface: { night: '#181e26', paper: '#fffdf8' },
  raised: { night: '#212933', paper: '#ece5d8' },
  line: { night: '#303b48', paper: '#cfc5b3' },
  text: { night: '#eee9df', paper: '#22262c' },
  muted: { night: '#9ba6b2', paper: '#5b6570' },
  lamp: { night: '#ffb74a', paper: '#9a5b00' },
  tide: { night: '#54c6c0', paper: '#0f6f6a' },
  ember: { night: '#ff6f59', paper: '#b3301b' },
  moss: { night: '#9ccb86', paper: '#3d6b2a' },
  onLamp: { night: '#1c1407', paper: '#fffdf8' },
  latticeBar: { night: '#3a4756', paper: '#b9ae9b' },
  latticeBeat: { night: '#232c37', paper: '#ded6c7' },
  latticeFine: { night: '#1b232c', paper: '#ebe4d7' },
} as const;
