import type { Keyframe } from '@core/motion';
import { copiedFrom, copiedSchema, findKey, lookEdits, outermost, pastedInto, takesKeyframes } from '@core/piece';
import type { Copied, Edit, KeyRef, Layer, TrackId } from '@core/piece';
import { beatMoment, beatToSeconds, freeMoment, secondsToBeat, shiftMoment } from '@core/time';
import type { Seconds } from '@core/time';
import { playhead } from '../../platform/clock';
import { newId } from '../../platform/ids';
import { edit, openDocument, selectLayers, setView, useDesk } from '../../store/desk-store';
import { momentAtPlayhead, selected } from './commands';
import { WORDS } from './words';

/** Copying and pasting: layers (also into other pieces and tabs), their looks, and keyframes. */

interface CopiedKey {
  readonly property: TrackId;
  readonly offset: Seconds;
  readonly key: Keyframe;
  readonly layerIndex: number;
}
let copiedKeys: readonly CopiedKey[] = [];
let copied: Copied | null = null;

/** How copied layers are named on the system's clipboard. */
export const CLIP_TYPE = 'application/x-estrella+json';

/** What was copied last, as other tabs can read it; null if that was not layers. */
export const copiedText = (): string | null => (copied ? JSON.stringify(copied) : null);

/** The words of what was copied, for other programs. */
export const copiedWords = (): string =>
  copied?.layers.flatMap((layer) => (layer.kind === 'text' ? [layer.content.text] : [])).join('\n') ?? '';

export function copySelection(): void {
  const o = openDocument();
  const { selectedKeys, selectedLayers } = useDesk.getState();
  if (!o) return;
  if (selectedKeys.length === 0) {
    const next = copiedFrom(o.piece, selectedLayers);
    if (!next) return;
    copied = next;
    copiedKeys = [];
    const names = outermost(next.layers, selectedLayers);
    setView({ notice: WORDS.copied(names.length === 1 ? names[0]!.name : WORDS.layers(names.length)) });
    return;
  }
  copied = null;
  const layerIds = [...new Set(selectedKeys.map((ref) => ref.layerId))];
  const found = selectedKeys.flatMap((ref) => {
    const key = findKey(o.piece, ref);
    return key
      ? [{ property: ref.property, key, layerIndex: layerIds.indexOf(ref.layerId), time: o.times.timeOf(key.at) }]
      : [];
  });
  const first = Math.min(...found.map((f) => f.time));
  copiedKeys = found.map(({ time, ...rest }) => ({ ...rest, offset: time - first }));
  setView({ notice: WORDS.copiedKeyframe(copiedKeys.length) });
}

export function cutSelection(): void {
  copySelection();
  const { selectedKeys, selectedLayers } = useDesk.getState();
  if (selectedKeys.length > 0) edit([{ type: 'keys.remove', refs: [...selectedKeys] }]);
  else if (selectedLayers.length > 0) edit([{ type: 'layer.remove', ids: [...selectedLayers] }]);
}

/** Takes over what another tab or piece has copied. @returns False if it is not ours, or of another version. */
export function takeCopied(text: string): boolean {
  let found: unknown;
  try {
    found = JSON.parse(text);
  } catch {
    return false;
  }
  const parsed = copiedSchema.safeParse(found);
  if (!parsed.success) return false;
  copied = parsed.data;
  copiedKeys = [];
  return true;
}

/** Pastes at the playhead: keyframes onto the selected layers (in order), or layers as new ones. */
export function pasteSelection(): void {
  if (copied) pasteLayers(copied);
  else pasteKeys();
}

function pasteLayers(from: Copied): void {
  const o = openDocument();
  if (!o) return;
  const { layers, media, gestures } = pastedInto(from, o.piece, newId);
  const first = Math.min(...layers.map((layer) => o.times.timeOf(layer.start)));
  const own = layers.map((layer) => layer.id);
  const ids = outermost(layers, own).map((layer) => layer.id);
  const done = edit([
    ...media.map((ref): Edit => ({ type: 'media.add', media: ref })),
    ...gestures.map((gesture): Edit => ({ type: 'gesture.saveOwn', gesture })),
    { type: 'layer.add', layers },
    { type: 'layer.move', ids, seconds: playhead.seconds - first },
  ]);
  if (done) selectLayers(ids);
}

function pasteKeys(): void {
  const o = openDocument();
  const targets = selected();
  if (!o || copiedKeys.length === 0 || targets.length === 0) return;
  const { targets: music, grid } = o.times;
  const start = momentAtPlayhead();
  const startSeconds = o.times.timeOf(start);
  const layerCount = new Set(copiedKeys.map((k) => k.layerIndex)).size;
  const keys = targets.flatMap((layer, i) =>
    copiedKeys
      .filter((k) => takesKeyframes(layer, k.property) && (layerCount === 1 || k.layerIndex === i % layerCount))
      .map((k) => {
        const seconds = startSeconds + k.offset;
        const beat = Math.round(secondsToBeat(grid, seconds) * 12) / 12;
        const isOnGrid =
          start.kind === 'pinned' &&
          k.key.at.kind === 'pinned' &&
          Math.abs(beatToSeconds(grid, beat) - seconds) < 0.004;
        const at =
          k.offset === 0
            ? start
            : isOnGrid
              ? beatMoment(beat, grid)
              : shiftMoment(freeMoment(startSeconds), k.offset, music);
        return { layerId: layer.id, property: k.property, key: { ...k.key, id: newId(), at } };
      }),
  );
  if (keys.length === 0) return setView({ notice: WORDS.theSelectedLayerHas });
  edit([{ type: 'keys.add', keys }]);
  setView({ selectedKeys: keys.map(({ layerId, property, key }): KeyRef => ({ layerId, property, keyId: key.id })) });
}

/** Makes the selected layers look like the one that was copied. */
export function pasteLook(): void {
  const from: Layer | undefined = copied?.layers.at(-1);
  const targets = selected().filter((layer) => !layer.locked);
  if (!from || targets.length === 0) return setView({ notice: WORDS.copyALayerFirst });
  edit(targets.flatMap((onto) => lookEdits(from, onto, newId)));
}
