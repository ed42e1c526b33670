import type { Colour } from '../colour';
import { evaluateTrack } from '../motion';
import type { Vector } from '../motion';
import { emOfSides } from '../piece';
import type { Seconds } from '../time';
import { NO_ACT, wipeEdge, withState } from './movement/act';
import type { DisplayItem, DisplayList, PictureItem, ShapeItem, SmearItem, StillItem } from './list/display-list';
import { castGesture, castState, isAtWork } from './movement/gesture-timing';
import type { CastGesture, PreparedGesture } from './movement/gesture-timing';
import { LayerReader, layerMatrix, shapeItem, tinted, withBlur } from './layer-reader';
import { ellipsePath, multiply, roundedRectanglePath } from '../geometry';
import type { Box, Matrix } from '../geometry';
import type { PreparedLayer, PreparedScene } from './prepare';
import { textItem } from './text/text-item';
import { INVISIBLE } from './text/text-stage';
import type { LayoutText } from './text/text-stage';

const centredBox = ([w, h]: Vector): Box => [-w / 2, -h / 2, w / 2, h / 2];

/** The layer as one thing at one time, without what is smeared. */
function stillItem(
  prepared: PreparedLayer,
  scene: PreparedScene,
  seconds: Seconds,
  layoutText: LayoutText,
): StillItem | null {
  const { layer } = prepared;
  const read = new LayerReader(prepared, seconds);
  const opacity = Math.min(1, Math.max(0, read.number('opacity')));
  if (opacity < INVISIBLE) return null;
  const matrix = layerMatrix(prepared, read, [scene.format.width / 2, scene.format.height / 2]);
  const act = (item: ShapeItem | PictureItem) =>
    withBlur(acted(prepared, item, matrix, read, seconds), read.number('blur') * prepared.fit);
  switch (layer.kind) {
    case 'text':
      return textItem(prepared, layer, scene, seconds, layoutText, opacity);
    case 'rectangle': {
      const [w, h] = read.vector('dimensions');
      const radius = read.number('cornerRadius');
      return act(
        shapeItem(
          prepared,
          read,
          {
            path: roundedRectanglePath(w, h, radius),
            pathKey: `q${w},${h},${radius}`,
            box: centredBox([w, h]),
            matrix,
            unitsPerPixel: 1,
          },
          layer.content.gradient,
          opacity,
        ),
      );
    }
    case 'ellipse': {
      const [w, h] = read.vector('dimensions');
      return act(
        shapeItem(
          prepared,
          read,
          { path: ellipsePath(w, h), pathKey: `e${w},${h}`, box: centredBox([w, h]), matrix, unitsPerPixel: 1 },
          layer.content.gradient,
          opacity,
        ),
      );
    }
    case 'path': {
      const [w, h] = read.vector('dimensions');
      const [bw, bh] = layer.content.box;
      const [kx, ky] = [w / bw, h / bh];
      const stretched: Matrix = [
        matrix[0] * kx,
        matrix[1] * kx,
        matrix[2] * ky,
        matrix[3] * ky,
        matrix[4] - (matrix[0] * w) / 2 - (matrix[2] * h) / 2,
        matrix[5] - (matrix[1] * w) / 2 - (matrix[3] * h) / 2,
      ];
      const unitsPerPixel = 1 / Math.sqrt(Math.max(1e-9, Math.abs(kx * ky)));
      return act(
        shapeItem(
          prepared,
          read,
          {
            path: layer.content.d,
            pathKey: `p${layer.content.d}`,
            box: [0, 0, bw, bh],
            matrix: stretched,
            unitsPerPixel,
          },
          layer.content.gradient,
          opacity,
        ),
      );
    }
    case 'picture': {
      if (prepared.mediaHash === null) return null;
      const [w, h] = read.vector('dimensions');
      const cornerRadius = read.number('cornerRadius');
      return act({
        kind: 'picture',
        layerId: layer.id,
        mediaHash: prepared.mediaHash,
        cornerRadius,
        box: centredBox([w, h]),
        matrix,
        opacity,
        blend: layer.blend,
        fingerprint: `i${prepared.mediaHash}|${w},${h},${cornerRadius}|${matrix.join()}|${opacity}|${layer.blend}`,
      });
    }
  }
}

const casts = new WeakMap<PreparedGesture, CastGesture>();

/** Gestures of a layer that is one thing: a shape or a picture turns and grows about its middle. */
function acted<T extends ShapeItem | PictureItem>(
  prepared: PreparedLayer,
  item: T,
  matrix: Matrix,
  read: LayerReader,
  seconds: Seconds,
): T {
  if (prepared.gestures.length === 0) return item;
  const [w, h] = read.vector('dimensions');
  const em = emOfSides([w, h]);
  let act = NO_ACT;
  for (const gesture of prepared.gestures) {
    let cast = casts.get(gesture);
    if (!cast) casts.set(gesture, (cast = castGesture(gesture, [{ x: 0, y: 0 }], () => 0)));
    if (!isAtWork(cast, seconds)) continue;
    const state = castState(cast, 0, seconds);
    if (!state) continue;
    act = withState(
      act,
      state,
      { pivot: [0, 0], box: [-w / 2, -h / 2, w / 2, h / 2], em, fromMiddle: 0 },
      gesture.use.colour,
    );
  }
  if (act === NO_ACT) return item;
  // From the layer's pixels to the item's own coordinates, which differ for stretched paths only.
  const [l, t, r, b] = item.box;
  const toItem: Matrix = [
    w / Math.max(1e-6, r - l),
    0,
    0,
    h / Math.max(1e-6, b - t),
    -w / 2 - (l * w) / Math.max(1e-6, r - l),
    -h / 2 - (t * h) / Math.max(1e-6, b - t),
  ];
  const own = multiply(multiply(matrix, act.matrix), toItem);
  const edge = act.wipe ? wipeEdge({ share: act.wipe.share, box: item.box }) : null;
  const clip = act.clip ? { matrix: multiply(matrix, act.clip.matrix), box: act.clip.box } : null;
  let changed: T = { ...item, matrix: own, opacity: item.opacity * act.opacity };
  if (changed.kind === 'shape') {
    const fill = changed.fill && tinted(changed.fill, act.tint);
    changed = { ...changed, fill: act.ink > 0 ? fill : null };
  }
  return withBlur(
    {
      ...changed,
      ...(edge ? { wipe: edge } : {}),
      ...(clip ? { clip } : {}),
      fingerprint: `${item.fingerprint}a${own.join()}|${act.opacity}|${act.tint('#808080')}|${act.ink}|${edge?.to[0] ?? ''}|${clip ? clip.matrix.join() : ''}`,
    },
    act.blur * em * prepared.fit,
  );
}

/** Times within a frame at which a moving layer is drawn for its motion blur; the picture is their mean. */
const SHUTTER_SAMPLES = 8;

function blurred(
  prepared: PreparedLayer,
  scene: PreparedScene,
  seconds: Seconds,
  layoutText: LayoutText,
): StillItem | SmearItem | null {
  const item = stillItem(prepared, scene, seconds, layoutText);
  if (!item || prepared.shutter <= 0) return item;
  // The shutter is open about the frame's moment, so that what lands on it is seen there.
  const samples: StillItem[] = [];
  let isMoving = false;
  for (let i = 0; i < SHUTTER_SAMPLES; i++) {
    const at = seconds + ((i + 0.5) / SHUTTER_SAMPLES - 0.5) * prepared.shutter;
    const sample = at < prepared.start || at >= prepared.end ? item : stillItem(prepared, scene, at, layoutText);
    if (!sample) continue;
    if (sample.fingerprint !== item.fingerprint) isMoving = true;
    samples.push(sample);
  }
  if (!isMoving) return item;
  return {
    kind: 'smear',
    layerId: item.layerId,
    samples,
    matrix: item.matrix,
    box: item.box,
    opacity: 1,
    blend: item.blend,
    fingerprint: `m${samples.map((s) => s.fingerprint).join('^')}`,
  };
}

/** The layer with the copies that follow it. */
function trailing(
  prepared: PreparedLayer,
  scene: PreparedScene,
  seconds: Seconds,
  layoutText: LayoutText,
): DisplayItem | null {
  const item = blurred(prepared, scene, seconds, layoutText);
  const { trail } = prepared.layer;
  if (!item || !trail || trail.copies === 0) return item;
  const copies: (StillItem | SmearItem)[] = [];
  for (let k = trail.copies; k >= 1; k--) {
    const at = seconds - k * trail.spacing;
    const copy = at < prepared.start ? null : stillItem(prepared, scene, at, layoutText);
    // A copy that has come to rest lies under the layer itself and is not seen.
    if (copy && copy.fingerprint !== item.fingerprint)
      copies.push({ ...copy, opacity: copy.opacity * trail.fade ** k, fingerprint: `${copy.fingerprint}t${k}` });
  }
  if (copies.length === 0) return item;
  return {
    kind: 'trail',
    layerId: item.layerId,
    copies: [...copies, item],
    matrix: item.matrix,
    box: item.box,
    opacity: 1,
    blend: item.blend,
    fingerprint: `${copies.map((c) => c.fingerprint).join('>')}>${item.fingerprint}`,
  };
}

/** The frame at a time: layers that stand in [start, end), bottom to top. Pure: same input, same list. */
export function sceneAt(
  scene: PreparedScene,
  seconds: Seconds,
  layoutText: LayoutText,
  skipLayerId: string | null = null,
): DisplayList {
  const items: DisplayItem[] = [];
  for (const prepared of scene.layers) {
    if (prepared.hidden || seconds < prepared.start || seconds >= prepared.end || prepared.layer.id === skipLayerId)
      continue;
    const item = trailing(prepared, scene, seconds, layoutText);
    if (item) items.push(item);
  }
  return {
    width: scene.format.width,
    height: scene.format.height,
    background: (evaluateTrack(scene.background, seconds) as Colour).slice(0, 7),
    items,
  }; // a colour track; video has no alpha, so the ground is opaque
}
