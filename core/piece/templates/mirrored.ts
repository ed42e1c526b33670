import type { Track, Vector } from '../../motion';
import type { Layer } from '../document/layer-schema';
import { plainCopy } from '../document/plain-copy';

/** What is on the left goes to the right, for words that run from right to left. Words, marks and pictures stay readable. */

/** Parameters of gestures that are a direction, degrees: 0 is to the right. */
const DIRECTIONS = new Set(['direction']);
/** Parameters of gestures that turn. */
const TURNS = new Set(['turn', 'angle', 'lean']);

const turned = (value: number): number => (value === 0 ? 0 : -value);
const across = ([x, y]: Vector): Vector => [turned(x), y];

function change(track: Track | undefined, by: (value: never) => Track['value']): void {
  if (!track) return;
  track.value = by(track.value as never); // a track holds values of one kind
  for (const key of track.keyframes) {
    key.value = by(key.value as never);
    if (key.tangentIn) key.tangentIn = across(key.tangentIn);
    if (key.tangentOut) key.tangentOut = across(key.tangentOut);
  }
}

const EDGES = { left: 'right', right: 'left', centre: 'centre', both: 'both', share: 'share' } as const;
const SIDES = { left: 'right', right: 'left', center: 'center' } as const;

/** A layer as it stands in a mirror about the middle of the frame. */
export function mirrored(layer: Layer): Layer {
  const copy = plainCopy(layer);
  for (const tracks of [copy.tracks, ...Object.values(copy.overrides).map((override) => override.tracks ?? {})]) {
    change(tracks.position, across);
    change(tracks.anchor, across);
    change(tracks.rotation, turned);
    change(tracks.skew, turned);
    change(tracks.gradientAngle, (degrees: number) => 180 - degrees);
  }
  for (const override of Object.values(copy.overrides)) override.move = across(override.move);
  if (copy.constraints) copy.constraints.horizontal = EDGES[copy.constraints.horizontal];
  if (copy.repeat) copy.repeat.step = across(copy.repeat.step);
  for (const use of copy.gestures) {
    for (const [id, value] of Object.entries(use.parameters)) {
      if (DIRECTIONS.has(id)) use.parameters[id] = 180 - value;
      else if (TURNS.has(id)) use.parameters[id] = turned(value);
    }
  }
  if (copy.kind === 'text') {
    copy.content.align = SIDES[copy.content.align];
    const { area } = copy.content;
    // To the billionth: what is mirrored twice is what it was.
    if (area) area.x = Math.round((1 - area.x - area.width) * 1e9) / 1e9;
  }
  if (copy.kind === 'rectangle') {
    const [a, b, c, d] = copy.content.corners;
    copy.content.corners = [b, a, d, c];
  }
  return copy;
}
