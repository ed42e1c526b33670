import { newGestureUse } from '../motion';
import type { GestureId, GestureRole, GestureUse } from '../motion';
import { DESTINATIONS, constantTrack, createPiece, slotsOf } from '../piece';
import type { Constraints, Layer, Piece, Slot, SlotKind, Template, TemplateUse } from '../piece';
import { FRAME_RATES } from '../time';
import { beat, createComposer } from './compose';
import type { Part } from './compose';

/** What the templates that come with the program are written with. */

/** Edges of the safe area of the wide frame, pixels from its centre. */
export const SAFE = { left: -864, top: -486, right: 864, bottom: 486 } as const;

/** The templates' own wardrobe: what they wear where a piece has none. */
export const OWN_WARDROBE: Piece['wardrobe'] = {
  colours: { ground: '#143749', text: '#fff3df', accent: '#ffb74a', second: '#ff8a6b' },
  fonts: { display: 'bricolage-grotesque', text: 'spline-sans' },
  logos: {},
  from: null,
};

/** Held by the lower edges of the safe area, and as large as is read from the same distance. */
export const LOW_LEFT: Constraints = { horizontal: 'left', vertical: 'bottom', within: 'safe-area', scales: 'reading' };

export interface Moves {
  readonly gesture: GestureId;
  readonly beats: number;
  readonly unit?: GestureUse['unit'];
  readonly parameters?: Readonly<Record<string, number>>;
  /** Beats from one time to the next, of accents. */
  readonly every?: number;
}

export interface KitPart extends Part {
  readonly in?: Moves;
  readonly out?: Moves;
  readonly accent?: Moves;
  readonly slot?: readonly [id: string, part: Exclude<SlotKind, 'song'>];
  readonly parent?: Layer;
  /** What it is painted right below of. */
  readonly under?: Layer;
  readonly held?: Constraints;
}

export interface Facts {
  readonly id: string;
  readonly name: string;
  readonly use: TemplateUse;
  /** Plain words to find it by. */
  readonly mood: string;
  readonly help: string;
  /** Beats it lasts. */
  readonly beats: number;
  readonly timing?: Partial<Template['timing']>;
  readonly slots?: Readonly<Record<string, Partial<Slot>>>;
}

export type Add = (part: KitPart) => Layer;

/** Gestures that are seen to hit neither as they set off nor as they end. */
const HITS_WITHIN: ReadonlySet<GestureId> = new Set<GestureId>([
  'nova',
  'compass',
  'gravity',
  'orbit',
  'tide',
  'gust',
  'thunder',
  'eclipse',
  'filament',
]);
const SPRINGS: ReadonlySet<GestureId> = new Set<GestureId>(['shutter', 'horizon', 'zenith']);

/** After which share of its movement an entrance has arrived at the latest. */
const arrivesBy = (gesture: GestureId): number => (gesture === 'filament' || gesture === 'orbit' ? 1 : 0.6);

/** The beat on which a gesture lands its peak; null where beginning or ending with its layer lands it. */
function landingOf(role: GestureRole, { gesture, beats, parameters }: Moves, part: KitPart): number | null {
  const isWithin = HITS_WITHIN.has(gesture) || (SPRINGS.has(gesture) && (parameters?.overshoot ?? 0) > 0.02);
  if (role === 'accent' || !isWithin) return null;
  const lead = Math.ceil(beats * arrivesBy(gesture) * 2) / 2;
  if (role === 'entrance') return part.from + lead;
  return gesture === 'eclipse' ? part.to - lead : part.to;
}

/** Builds a template with its layers in the order in which they are painted. */
export function template(facts: Facts, build: (add: Add) => void): Piece {
  const make = createComposer();
  const layers: Layer[] = [];
  let gestures = 0;
  const use = (role: GestureRole, moves: Moves, part: KitPart): GestureUse => {
    const plain = newGestureUse(moves.gesture, role, `g${++gestures}`);
    const at = landingOf(role, moves, part);
    return {
      ...plain,
      unit: moves.unit ?? plain.unit,
      duration: plain.duration.unit === 'stay' ? plain.duration : { unit: 'beats', value: moves.beats },
      every: moves.every ?? plain.every,
      parameters: { ...moves.parameters },
      ...(at === null ? {} : { at: beat(at), landing: 'peak' }),
      colour: '@accent',
    };
  };
  build((part) => {
    const layer = make(part);
    layer.parentId = part.parent?.id ?? null;
    layer.gestures = [
      ...(part.in ? [use('entrance', part.in, part)] : []),
      ...(part.accent ? [use('accent', part.accent, part)] : []),
      ...(part.out ? [use('exit', part.out, part)] : []),
    ];
    if (part.slot) layer.slot = { slotId: part.slot[0], part: part.slot[1] };
    if (part.held) layer.constraints = part.held;
    const below = part.under ? layers.indexOf(part.under) : layers.length;
    layers.splice(below, 0, layer);
    return layer;
  });
  const base = createPiece(
    {
      name: facts.name,
      formats: Object.entries(DESTINATIONS).map(([id, { label, width, height }]) => ({
        id,
        name: label,
        width,
        height,
      })),
      frameRate: FRAME_RATES['30'],
    },
    () => `shipped-${facts.id}`,
  );
  const known = Object.entries(facts.slots ?? {});
  const slots = slotsOf(layers, []).map((slot) => ({ ...slot, ...known.find(([id]) => id === slot.id)?.[1] }));
  // Groups stand behind what is in them in the list.
  const inTree = inOrder(layers);
  return {
    ...base,
    end: beat(facts.beats),
    tempo: { bpm: 112, beatsPerBar: 4, groups: [], firstDownbeat: 0 },
    // Lower thirds stand on pictures: of a ground in the colour of their plates nothing would be seen.
    background: constantTrack(facts.use === 'lower-third' ? '#7b8f96' : '@ground'),
    wardrobe: OWN_WARDROBE,
    layers: inTree,
    template: {
      version: 1,
      use: facts.use,
      mood: facts.mood,
      help: facts.help,
      slots,
      fixed: [],
      timing: { stretches: 'hold', unit: 'beats', leastReading: true, endsOnBeat: true, ...facts.timing },
    },
  };
}

/** A group comes right after all that is in it. */
function inOrder(layers: readonly Layer[]): Layer[] {
  const out: Layer[] = [];
  const put = (parentId: string | null): void => {
    for (const layer of layers) {
      if (layer.parentId !== parentId) continue;
      if (layer.kind === 'group') put(layer.id);
      out.push(layer);
    }
  };
  put(null);
  return out;
}

export const group = (name: string, from: number, to: number, more: Partial<KitPart> = {}): KitPart => ({
  kind: 'group',
  name,
  from,
  to,
  ...more,
});

/** Words that keep to a room: smaller, then on more lines, then shorter. Sizes and widths are pixels of the wide frame. */
export interface Words {
  readonly name: string;
  readonly text: string;
  readonly at: readonly [x: number, y: number];
  readonly size: number;
  readonly width: number;
  readonly lines?: number;
  readonly leastSize?: number;
  readonly from: number;
  readonly to: number;
  readonly align?: 'left' | 'center' | 'right';
  readonly weight?: number;
  readonly fill?: string;
  readonly family?: string;
  readonly stands?: 'top' | 'middle' | 'bottom';
  readonly content?: Record<string, unknown>;
  readonly values?: Part['values'];
}

export const words = (w: Words, more: Partial<KitPart> = {}): KitPart => ({
  kind: 'text',
  name: w.name,
  from: w.from,
  to: w.to,
  content: {
    text: w.text,
    family: w.family ?? '@display',
    align: w.align ?? 'left',
    stands: w.stands ?? 'bottom',
    room: {
      width: w.width,
      lines: w.lines ?? 2,
      leastSize: w.leastSize ?? Math.round(w.size * 0.62),
      ways: ['shrink', 'wrap', 'abbreviate'],
    },
    ...w.content,
  },
  values: {
    size: w.size,
    weight: w.weight ?? 700,
    fill: w.fill ?? '@text',
    leading: 1.08,
    position: [w.at[0], w.at[1]],
    ...w.values,
  },
  ...more,
});

export interface Plate {
  readonly name: string;
  readonly fill: string;
  readonly from: number;
  readonly to: number;
  readonly at?: readonly [x: number, y: number];
  readonly sides?: readonly [width: number, height: number];
  readonly radius?: number;
  readonly opacity?: number;
  readonly content?: Record<string, unknown>;
}

export const plate = (p: Plate, more: Partial<KitPart> = {}): KitPart => ({
  kind: 'rectangle',
  name: p.name,
  from: p.from,
  to: p.to,
  ...(p.content ? { content: p.content } : {}),
  values: {
    fill: p.fill,
    dimensions: [p.sides?.[0] ?? 400, p.sides?.[1] ?? 120],
    position: [p.at?.[0] ?? 0, p.at?.[1] ?? 0],
    cornerRadius: p.radius ?? 0,
    opacity: p.opacity ?? 1,
  },
  ...more,
});

/** A plate as large as words and some room. */
export const about = (layer: Layer, padX: number, padY: number): Partial<KitPart> => ({
  more: { hug: { layerId: layer.id, padX, padY, axes: 'both' } },
});

/** A band as long as words and some room; how high it is stays. */
export const along = (layer: Layer, padX: number): Partial<KitPart> => ({
  more: { hug: { layerId: layer.id, padX, padY: 0, axes: 'x' } },
});

/** Words that fill a place of the frame, as large as they come up to a size. The place is in shares of the frame. */
export interface Fills {
  readonly name: string;
  readonly text: string;
  readonly area: readonly [x: number, y: number, width: number, height: number];
  readonly stands?: 'top' | 'middle' | 'bottom';
  readonly size: number;
  readonly from: number;
  readonly to: number;
  readonly align?: 'left' | 'center' | 'right';
  readonly weight?: number;
  readonly fill?: string;
  readonly family?: string;
  readonly content?: Record<string, unknown>;
  readonly values?: Part['values'];
}

export const fills = (w: Fills, more: Partial<KitPart> = {}): KitPart => ({
  kind: 'text',
  name: w.name,
  from: w.from,
  to: w.to,
  content: {
    text: w.text,
    family: w.family ?? '@display',
    align: w.align ?? 'center',
    area: {
      x: w.area[0],
      y: w.area[1],
      width: w.area[2],
      height: w.area[3],
      valign: w.stands ?? 'middle',
      breaks: 'sense',
      run: null,
    },
    ...w.content,
  },
  values: { size: w.size, weight: w.weight ?? 700, fill: w.fill ?? '@text', leading: 1.04, ...w.values },
  ...more,
});

/** Held by the frame on a side, or on both, and as large as is read from the same distance. */
export const held = (
  horizontal: Constraints['horizontal'],
  vertical: Constraints['vertical'],
  within: Constraints['within'] = 'frame',
  scales: Constraints['scales'] = 'reading',
): Constraints => ({ horizontal, vertical, within, scales });

/** Comes from a side in a straight line. @param direction - degrees, 0 is from the right. */
export const flies = (direction: number, beats: number, distance = 4): Moves => ({
  gesture: 'meteor',
  beats,
  unit: 'whole',
  parameters: { direction, distance, streak: 0 },
});
export const rises = (beats: number, unit: Moves['unit'] = 'word'): Moves => ({
  gesture: 'horizon',
  beats,
  unit: unit ?? 'word',
});
export const wipes = (beats: number): Moves => ({ gesture: 'eclipse', beats, unit: 'whole' });
export const fades = (beats: number): Moves => ({ gesture: 'dusk', beats, unit: 'whole' });
export const pops = (beats: number, overshoot = 0.3): Moves => ({
  gesture: 'nova',
  beats,
  unit: 'whole',
  parameters: { overshoot },
});
