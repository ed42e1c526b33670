import type { Easing, TrackValue } from '../motion';
import { createLayer, ownTrack } from '../piece';
import type { Layer, LayerKind, PropertyId } from '../piece';
import type { Moment } from '../time';

/** Short forms for writing pieces by hand in beats. All times are pinned: what is made re-times itself with its music. */
export const beat = (number: number): Moment => ({ kind: 'pinned', to: { type: 'beat', beat: number }, last: 0 });

export const settle: Easing = { type: 'spring', oscillations: 1.6, damping: 0.42 };
export const glide: Easing = { type: 'named', name: 'quint-out' };
export const rise: Easing = { type: 'named', name: 'back-out' };
export const leave: Easing = { type: 'named', name: 'cubic-in' };
export const even: Easing = { type: 'linear' };
export const sway: Easing = { type: 'named', name: 'sine-in-out' };

export type Keys = Partial<
  Record<PropertyId, readonly (readonly [beat: number, value: TrackValue, easing?: Easing])[]>
>;

export interface Part {
  readonly kind: LayerKind;
  readonly name: string;
  readonly from: number;
  readonly to: number;
  readonly content?: Record<string, unknown>;
  readonly values?: Partial<Record<PropertyId, TrackValue>>;
  readonly keys?: Keys;
  readonly blend?: Layer['blend'];
  readonly overrides?: Layer['overrides'];
  /** What else the layer is: its group, its gestures, what it is tied to. */
  readonly more?: Partial<Layer>;
}

/** Builds a layer whose ids are counted, so that the same code gives the same document. */
export function createComposer(): (part: Part) => Layer {
  let count = 0;
  return (part) => {
    const layer = createLayer(
      part.kind,
      {
        name: part.name,
        start: beat(part.from),
        end: beat(part.to),
        ...(part.content ? { content: part.content } : {}),
        ...(part.values ? { values: part.values } : {}),
      },
      () => `layer-${++count}`,
    );
    for (const [property, keys] of Object.entries(part.keys ?? {})) {
      // Keys of a typed record.
      ownTrack(layer, property as PropertyId).keyframes = keys.map(([at, value, easing]) => ({
        id: `key-${++count}`,
        at: beat(at),
        value,
        easing: easing ?? even,
      }));
    }
    layer.blend = part.blend ?? 'normal';
    layer.overrides = part.overrides ?? {};
    return { ...layer, ...part.more } as Layer; // what is added fits any kind
  };
}
