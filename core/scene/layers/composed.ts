import { multiply } from '../../geometry';
import type { Matrix } from '../../geometry';
import { evaluateTrack } from '../../motion';
import type { TrackValue, Vector } from '../../motion';
import { groupMatrix } from '../../piece';
import type { GroupItem, ItemEffect, ItemMask, Matte, StillItem } from '../list/display-list';
import { UNITS } from '../../text';
import type { Seconds } from '../../time';
import { setText } from '../text/text-at';
import { effectsAt } from './effects';
import type { LayerAt } from './layer-at';
import { formAt } from './form-at';
import { matrixOf } from './matrix-of';
import type { PreparedMask } from './prepare';
import { restBox } from './rest-box';

/** What is done to a layer as a whole: masks, a matte, effects. */

/** From pixels of the lead format about the layer's middle to pixels of the format. */
function ownMatrix(at: LayerAt): Matrix {
  const { prepared, read, outer, context } = at;
  const { layer, fit } = prepared;
  if (layer.kind === 'text') {
    const { matrix, size } = setText(at, layer);
    const k = size / UNITS;
    return [matrix[0] / k, matrix[1] / k, matrix[2] / k, matrix[3] / k, matrix[4], matrix[5]];
  }
  if (layer.kind !== 'group') return matrixOf(at);
  const [l, t, r, b] = restBox(prepared, context);
  const standing = multiply(outer.matrix, groupMatrix(read, prepared.place));
  return multiply(standing, [fit, 0, 0, fit, (l + r) / 2, (t + b) / 2]);
}

function maskAt({ mask, tracks }: PreparedMask, at: LayerAt, own: Matrix): ItemMask {
  const value = (id: keyof typeof tracks): TrackValue | undefined => {
    const track = tracks[id];
    return track && evaluateTrack(track, at.seconds);
  };
  // A file may hold values of another kind than the editor sets: they count as none.
  const number = (id: keyof typeof tracks, begins: number): number => {
    const own = value(id);
    return typeof own === 'number' ? own : begins;
  };
  const vector = (id: keyof typeof tracks, begins: Vector): Vector => {
    const own = value(id);
    return Array.isArray(own) ? own : begins;
  };
  const [x, y] = vector('position', [0, 0]);
  const [sx, sy] = vector('scale', [1, 1]);
  const turn = (number('rotation', 0) * Math.PI) / 180;
  const placed = multiply(own, [Math.cos(turn), Math.sin(turn), -Math.sin(turn), Math.cos(turn), x, y]);
  const [w, h] = mask.box;
  const d = formAt(mask.d, mask.forms, number('form', 0));
  return {
    mode: mask.mode,
    inverted: mask.inverted,
    path: d,
    pathKey: `m${d}`,
    rule: mask.rule,
    matrix: multiply(placed, [sx, 0, 0, sy, (-w / 2) * sx, (-h / 2) * sy]),
    opacity: Math.min(1, Math.max(0, number('opacity', 1))),
    feather: Math.max(0, number('feather', 0)) * at.prepared.fit * at.outer.scale,
    expansion: number('expansion', 0) / Math.max(1e-6, Math.sqrt(Math.abs(sx * sy))),
  };
}

/** Layers that are being drawn as mattes: one that is seen by itself, however far around, is seen by nothing. */
const underWay = new Set<string>();

function matteAt({ prepared, seconds, context }: LayerAt): Matte | null {
  const { matte } = prepared.layer;
  const cover = matte && context.scene.byId.get(matte.layerId);
  if (!matte || !cover || underWay.has(cover.layer.id) || underWay.has(prepared.layer.id)) return null;
  underWay.add(prepared.layer.id);
  try {
    const isThere = !cover.layer.isGuide && seconds >= cover.start && seconds < cover.end;
    const item = isThere ? context.draw.still(cover, seconds, context) : null;
    return { items: item ? [item] : [], channel: matte.channel, inverted: matte.inverted };
  } finally {
    underWay.delete(prepared.layer.id);
  }
}

/** What a layer is drawn as, without what is done to it as a whole. */
export interface Drawn {
  readonly at: LayerAt;
  readonly item: StillItem;
}

/**
 * A layer's item with its masks, its matte and its effects; itself if it has none.
 * @param again - the same layer at another time, for echoes; none are drawn without it.
 */
export function composed(
  at: LayerAt,
  item: StillItem,
  again: ((seconds: Seconds) => Drawn | null) | null = null,
): StillItem | null {
  const { effects } = at.prepared;
  // Of several echoes the last counts: echoes of echoes would be hundreds.
  const echo = again ? effects.map((effect) => effect.kind).lastIndexOf('echo') : -1;
  if (echo < 0 || at.context.isAtRest || !again) return done(at, item, effectsAt(at), true);
  const before = (drawn: Drawn): StillItem | null =>
    done(drawn.at, drawn.item, effectsAt(drawn.at).slice(0, echo), true);
  const all = effectsAt(at);
  const settings = all[echo];
  const whole = before({ at, item });
  if (!settings || !whole) return null;
  const echoes = echoesOf(at, settings, again).flatMap(({ drawn, share }) => {
    const copy = before(drawn);
    // A copy that has come to rest lies under the layer itself and is not seen.
    return copy && copy.fingerprint !== whole.fingerprint ? [faded(copy, share)] : [];
  });
  const together = echoes.length === 0 ? whole : oneOf(at, [...echoes, { ...whole, blend: 'normal' }], whole);
  return done(at, together, all.slice(echo + 1), false);
}

/** The layer at the moments of its echoes, the oldest first, and what each keeps. */
function echoesOf(
  { prepared, seconds }: LayerAt,
  { values }: ItemEffect,
  again: (seconds: Seconds) => Drawn | null,
): { drawn: Drawn; share: number }[] {
  const [copies, apart, keeps] = [Number(values.copies), Number(values.apart), Number(values.keeps) / 100];
  const echoes: { drawn: Drawn; share: number }[] = [];
  for (let k = Math.round(copies); k >= 1; k--) {
    const then = seconds - k * apart;
    const drawn = then < prepared.start ? null : again(then);
    if (drawn) echoes.push({ drawn, share: keeps ** k });
  }
  return echoes;
}

function faded(item: StillItem, share: number): StillItem {
  const plain = { opacity: item.opacity * share, blend: 'normal' as const };
  const fingerprint = `${item.fingerprint}e${share}`;
  return item.kind === 'group'
    ? { ...item, ...plain, own: `${item.own}e${share}`, fingerprint }
    : { ...item, ...plain, fingerprint };
}

/** Several states of a layer as one. */
const oneOf = ({ prepared }: LayerAt, children: readonly StillItem[], { matrix, box }: StillItem): GroupItem => ({
  kind: 'group',
  holds: 'parts',
  layerId: prepared.layer.id,
  children,
  under: [],
  matrix,
  box,
  opacity: 1,
  blend: prepared.layer.blend,
  own: `e${prepared.layer.blend}`,
  fingerprint: `e${prepared.layer.blend}[${children.map((child) => child.fingerprint).join('~')}]`,
});

/** @param isFirst - whether masks and the matte are due. */
function done(at: LayerAt, item: StillItem, effects: readonly ItemEffect[], isFirst: boolean): StillItem | null {
  const { prepared, context } = at;
  const { layer } = prepared;
  if (context.isAtRest) return item;
  if (effects.some((effect) => effect.kind === 'strobe' && effect.values.shown === 0)) return null;
  const matte = isFirst ? matteAt(at) : null;
  const masks = isFirst && prepared.masks.length > 0 ? withOwnMatrix(at) : [];
  if (effects.length === 0 && masks.length === 0 && !matte) return item;
  const own =
    `${item.opacity}|${layer.blend}|${effects.map((e) => e.kind + e.seed + JSON.stringify(e.values)).join('~')}|` +
    `${masks.map((m) => `${m.mode}${m.inverted}${m.pathKey}${m.rule}${m.matrix.join()}${m.opacity},${m.feather},${m.expansion}`).join('~')}|` +
    (matte ? `${matte.channel}${matte.inverted}${matte.items.map((i) => i.fingerprint).join('~')}` : '');
  // Opacity and blend mode count for what comes of it all.
  const inside: StillItem =
    item.kind === 'group'
      ? { ...item, opacity: 1, blend: 'normal', own: `${item.own}i` }
      : { ...item, opacity: 1, blend: 'normal' };
  const whole: GroupItem = {
    kind: 'group',
    holds: 'parts',
    layerId: layer.id,
    children: [inside],
    under: [],
    matrix: item.matrix,
    box: item.box,
    opacity: item.opacity,
    blend: layer.blend,
    ...(effects.length > 0 ? { effects } : {}),
    ...(masks.length > 0 ? { masks } : {}),
    ...(matte ? { matte } : {}),
    own,
    fingerprint: `w${own}[${item.fingerprint}]`,
  };
  return whole;
}

function withOwnMatrix(at: LayerAt): ItemMask[] {
  const own = ownMatrix(at);
  return at.prepared.masks.map((mask) => maskAt(mask, at, own));
}
