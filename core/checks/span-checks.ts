import {
  NEW_GROUP_TIME,
  footageOf,
  footageSeconds,
  footageSpeed,
  shownLayers,
  trimEdit,
  visitLayerMoments,
} from '../piece';
import type { Layer } from '../piece';
import { beatMoment, beatToSeconds, framesPerSecond, freeMoment, secondsToBeat } from '../time';
import type { Moment, Seconds } from '../time';
import { finding } from './finding';
import type { CheckContext, Finding, Fix } from './finding';

/** Where layers begin and end: beside the end of the piece, beside the beat, and beside the end of what they show. */

/** Whether something of a layer happens after a moment: a keyframe, or the exit that it ends with. */
function happensAfter(layer: Layer, at: Seconds, { times }: CheckContext): boolean {
  if (layer.gestures.some((use) => use.role === 'exit')) return true;
  let isAfter = false;
  visitLayerMoments(layer, (moment) => void (isAfter ||= times.timeOf(moment) > at));
  return isAfter;
}

/**
 * Layers that go on after the piece has ended, with something of them that is never seen. What only stands there to the
 * end and beyond is well, and what lies behind it altogether is another check's matter.
 */
export function leftovers(context: CheckContext): Finding[] {
  const { piece, times } = context;
  const frame = 1 / framesPerSecond(piece.frameRate);
  return shownLayers(piece.layers).flatMap((layer) => {
    const end = times.timeOf(layer.end);
    if (times.timeOf(layer.start) >= times.end || end <= times.end + frame) return [];
    if (!happensAfter(layer, times.end + frame, context)) return [];
    const text = `${layer.name} continues for ${(end - times.end).toFixed(1)} s after the end and is partly never visible.`;
    const edits = [trimEdit(layer, { end: piece.end })];
    return [
      finding('warning', text, {
        layerId: layer.id,
        at: Math.max(0, times.end - frame),
        fixes: layer.locked ? [] : [{ label: 'Trim end', edits }],
      }),
    ];
  });
}

/** Less than this share of a frame is on the beat. */
const ON_BEAT = 0.1;

/**
 * Beginnings and ends of layers that lie within a frame of a beat and not on it: a slip of the hand, which is seen as one
 * frame too early or too late. What is pinned is where it is meant to be.
 */
export function cutsBesideBeats({ piece, times }: CheckContext): Finding[] {
  const rate = framesPerSecond(piece.frameRate);
  const { grid } = times;
  const side = (layer: Layer, which: 'start' | 'end'): Finding[] => {
    const moment: Moment = layer[which];
    if (moment.kind === 'pinned') return [];
    const at: Seconds = moment.seconds;
    if (at <= 0 || at >= times.end) return [];
    const beat = Math.round(secondsToBeat(grid, at));
    const late = at - beatToSeconds(grid, beat);
    const frames = Math.abs(late) * rate;
    if (frames <= ON_BEAT || frames > 1) return [];
    const does = which === 'start' ? 'begins' : 'ends';
    const text = `${layer.name} ${does} ${(Math.abs(late) * 1000).toFixed(0)} ms ${late > 0 ? 'after' : 'before'} a beat.`;
    const edits = [trimEdit(layer, { [which]: beatMoment(beat, grid) })];
    return [
      finding('warning', text, {
        layerId: layer.id,
        at,
        fixes: layer.locked ? [] : [{ label: 'Snap to beat', edits }],
      }),
    ];
  };
  return shownLayers(piece.layers).flatMap((layer) => [...side(layer, 'start'), ...side(layer, 'end')]);
}

/** Footage that is over before its layer is: what is left of the layer shows nothing. */
export function footageThatEnds({ piece, times }: CheckContext): Finding[] {
  const frame = 1 / framesPerSecond(piece.frameRate);
  return shownLayers(piece.layers).flatMap((layer) => {
    const shown = footageOf(piece.media, layer);
    const speed = shown ? footageSpeed(shown.layer) : 0;
    if (!shown || speed === 0) return [];
    const [start, end] = [times.timeOf(layer.start), Math.min(times.end, times.timeOf(layer.end))];
    const left = footageSeconds(shown.ref.footage) - shown.layer.content.from;
    const over = start + left / speed;
    if (end - over <= frame) return [];
    const time = { ...NEW_GROUP_TIME, speed: Math.max(0, left / (end - start)) };
    const fixes: Fix[] = [
      { label: 'Trim end', edits: [{ type: 'layer.setSpan', id: layer.id, end: freeMoment(over) }] },
      { label: 'Slow down', edits: [{ type: 'group.setTime', id: layer.id, time }] },
    ];
    const text = `The clip of ${layer.name} ends ${(end - over).toFixed(1)} s before its layer.`;
    const isFixed = !layer.locked && left > frame;
    return [finding('warning', text, { layerId: layer.id, at: Math.max(start, over), fixes: isFixed ? fixes : [] })];
  });
}
