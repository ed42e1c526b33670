import { MARKS, MARK_BOX } from '../../piece';
import type { Layer, MarkId } from '../../piece';
import { group, words } from '../kit';
import type { Add, Facts, KitPart, Moves } from '../kit';

/** What lower thirds are made of. */

export const NAME = { name: 'Name', help: 'Who is seen', mirrors: true } as const;
export const LINE = { name: 'Line below', help: 'What they do, or where to find them' } as const;
export const MARK = {
  name: 'Mark or logo',
  kind: 'logo',
  help: 'A mark of the list, or a logo of the wardrobe',
} as const;

export const LENGTH = 12;
export const facts = (
  id: string,
  name: string,
  mood: string,
  help: string,
  slots: Facts['slots'] = {},
  more: Partial<Facts> = {},
): Facts => ({
  id,
  name,
  use: 'lower-third',
  mood,
  help,
  beats: LENGTH,
  slots: { name: NAME, line: LINE, ...slots },
  ...more,
});

export const markPart = (
  id: MarkId,
  at: readonly [number, number],
  side: number,
  fill: string,
  from: number,
  to: number,
  more: Partial<KitPart> = {},
): KitPart => ({
  kind: 'path',
  name: 'Mark',
  from,
  to,
  content: { d: MARKS[id].d, box: MARK_BOX, rule: 'evenodd' },
  values: { dimensions: [side, side], position: [at[0], at[1]], fill },
  slot: ['mark', 'logo'],
  ...more,
});

export interface Block {
  readonly x: number;
  /** Baseline of the lower line. */
  readonly base: number;
  readonly width: number;
  readonly from: number;
  readonly to: number;
  readonly align?: 'left' | 'center' | 'right';
  readonly size?: number;
  readonly nameLines?: number;
  readonly lineSize?: number;
  readonly nameFill?: string;
  readonly lineFill?: string;
  readonly weight?: number;
  readonly sample?: readonly [name: string, line: string];
  readonly slots?: readonly [name: string, line: string];
  readonly nameIn?: Moves;
  readonly lineIn?: Moves;
  readonly nameOut?: Moves;
  readonly lineOut?: Moves;
  readonly parent: Layer;
  readonly content?: Record<string, unknown>;
}

export const RISES: Moves = { gesture: 'horizon', beats: 1.5 };
export const FADES: Moves = { gesture: 'dusk', beats: 1 };

/** A name with a line below it, as one thing that plates can hug. */
export function block(add: Add, b: Block): { both: Layer; name: Layer; line: Layer } {
  const both = add(group('Words', b.from, b.to, { parent: b.parent }));
  const size = b.size ?? 62;
  const lineSize = b.lineSize ?? 34;
  const [nameSlot, lineSlot] = b.slots ?? ['name', 'line'];
  const [nameText, lineText] = b.sample ?? ['Inés Vardal', 'Kite maker, Puerto Lumo'];
  const name = add(
    words(
      {
        name: 'Name',
        text: nameText,
        at: [b.x, b.base - lineSize * 0.95 - size * 0.44],
        size,
        width: b.width,
        ...(b.nameLines ? { lines: b.nameLines } : {}),
        from: b.from,
        to: b.to,
        weight: b.weight ?? 700,
        ...(b.align ? { align: b.align } : {}),
        ...(b.nameFill ? { fill: b.nameFill } : {}),
        ...(b.content ? { content: b.content } : {}),
      },
      { parent: both, slot: [nameSlot, 'text'], in: b.nameIn ?? RISES, out: b.nameOut ?? b.nameIn ?? RISES },
    ),
  );
  const line = add(
    words(
      {
        name: 'Line below',
        text: lineText,
        at: [b.x, b.base],
        size: lineSize,
        leastSize: Math.round(lineSize * 0.8),
        width: b.width,
        lines: 1,
        from: b.from + 0.5,
        to: b.to,
        weight: 500,
        family: '@text',
        fill: b.lineFill ?? '@accent',
        ...(b.align ? { align: b.align } : {}),
      },
      { parent: both, slot: [lineSlot, 'text'], in: b.lineIn ?? FADES, out: b.lineOut ?? FADES },
    ),
  );
  return { both, name, line };
}

export const fromLeft = (beats: number, distance = 3): Moves => ({
  gesture: 'meteor',
  beats,
  unit: 'whole',
  parameters: { direction: 180, distance, streak: 0 },
});
