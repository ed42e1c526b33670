import { ownTrack } from '../document/tracks';
import { frameMiddle, frameToSeconds, freeMoment, secondsToFrame } from '../../time';
import type { FrameRate, Seconds } from '../../time';
import { createLayer } from '../document/create';
import type { IdSource } from '../document/create';
import { leadFormat } from '../document/lead-format';
import { hasRole } from './phrase-sheet';
import type { Format, Piece } from '../document/schema';
import type { TextLayer } from '../document/layer-schema';
import type { PhraseTag } from '../document/text-content';

/** A line of the roll: a name with what its bearer did, a heading by itself, or a gap. */
export type CreditRow =
  | { readonly kind: 'name'; readonly role: string; readonly name: string }
  | { readonly kind: 'heading'; readonly text: string }
  | { readonly kind: 'gap' };

/**
 * Role and name are parted by a tab, a semicolon, a dash between spaces, a colon or two or more spaces: however a list
 * comes out of a letter or a table.
 */
const PARTED = /^(.*?)(?:\t+|\s*;\s*|\s+[–—-]\s+|:\s+|\s{2,})(.+)$/u;

export function readCredits(text: string): CreditRow[] {
  const rows = text
    .replace(/\r\n?/g, '\n')
    .split('\n')
    .map((line): CreditRow => {
      const typed = line.trim();
      if (typed === '') return { kind: 'gap' };
      const parts = PARTED.exec(typed);
      return parts && parts[1]!.trim() !== ''
        ? { kind: 'name', role: parts[1]!.trim(), name: parts[2]!.trim() }
        : { kind: 'heading', text: typed };
    });
  while (rows[rows.length - 1]?.kind === 'gap') rows.pop();
  while (rows[0]?.kind === 'gap') rows.shift();
  return rows;
}

export const writeCredits = (rows: readonly CreditRow[]): string =>
  rows
    .map((row) => (row.kind === 'gap' ? '' : row.kind === 'heading' ? row.text : `${row.role}\t${row.name}`))
    .join('\n');

export interface RollPlan {
  readonly from: Seconds;
  /** Seconds from the first line's appearance to the last one's rest. */
  readonly length: Seconds;
  /** Seconds it stands at the end. */
  readonly hold: Seconds;
  readonly size: number;
  readonly colour: string;
  readonly accent: string;
}

const LEADING = 1.5;
const PARTS: readonly (readonly [role: PhraseTag['role'], label: string])[] = [
  ['credit-role', 'Credits: what they did'],
  ['credit-name', 'Credits: names'],
  ['credit-heading', 'Credits: headings'],
];

/** The words of one column, one line a row, so that all columns keep the same baselines. */
function column(rows: readonly CreditRow[], part: PhraseTag['role']): string {
  return rows
    .map((row) =>
      row.kind === 'heading'
        ? part === 'credit-heading'
          ? row.text
          : ''
        : row.kind === 'name'
          ? part === 'credit-role'
            ? row.role
            : part === 'credit-name'
              ? row.name
              : ''
          : '',
    )
    .join('\n');
}

/**
 * How a roll moves: whole pixels every frame, so that letters do not shimmer. The speed is rounded to the nearest whole
 * number that comes closest to the wished length; the start is moved below the frame to fit, so that the last frame
 * rests exactly at the end.
 * @returns Pixels a frame (≥ 1), frames it moves, and the first and last vertical position of the middle of the text.
 */
export function rollMotion(
  rows: number,
  plan: RollPlan,
  format: Format,
  rate: FrameRate,
): { speed: number; frames: number; start: number; end: number } {
  const height = Math.round(rows * plan.size * LEADING);
  // The last line comes to rest a third above the frame's lower edge, short rolls in the middle.
  const end = height < format.height * 0.7 ? 0 : -Math.round(height / 2 - format.height / 2 + format.height / 3);
  const least = format.height / 2 + Math.ceil(height / 2) + plan.size;
  const wished = Math.max(1, secondsToFrame(plan.length, rate));
  const speed = Math.max(1, Math.round((least - end) / wished));
  const frames = Math.ceil((least - end) / speed);
  return { speed, frames, start: end + speed * frames, end };
}

/** Layers of a roll: what they did on the left, names on the right, headings in the middle, moving as one. */
export function rollCredits(piece: Piece, rows: readonly CreditRow[], plan: RollPlan, newId: IdSource): TextLayer[] {
  const format = leadFormat(piece);
  const rate = piece.frameRate;
  const first = secondsToFrame(plan.from, rate);
  const { frames, start, end } = rollMotion(rows.length, plan, format, rate);
  const at = (frame: number) => freeMoment(frameToSeconds(frame, rate));
  // Frames show the moment at their middle: that is where whole pixels are wanted.
  const shown = (frame: number) => freeMoment(frameMiddle(frame, rate));
  const gutter = Math.round(plan.size * 0.6);
  return PARTS.flatMap(([part, name]): TextLayer[] => {
    const text = column(rows, part);
    if (text.trim() === '') return [];
    const x = part === 'credit-role' ? -gutter : part === 'credit-name' ? gutter : 0;
    const layer = createLayer(
      'text',
      {
        name,
        start: at(first),
        end: freeMoment(frameToSeconds(first + frames, rate) + plan.hold),
        content: {
          text,
          family: 'spline-sans',
          align: part === 'credit-role' ? 'right' : part === 'credit-name' ? 'left' : 'center',
          phrase: { role: part, locked: false, emphasis: [] },
        },
        values: {
          size: plan.size,
          leading: LEADING,
          weight: part === 'credit-name' ? 650 : 400,
          fill: part === 'credit-heading' ? plan.accent : plan.colour,
          position: [x, end],
        },
      },
      newId,
    ) as TextLayer; // of the kind asked for
    layer.motionBlur = 'off';
    ownTrack(layer, 'position').keyframes = [
      { id: newId(), at: shown(first), value: [x, start], easing: { type: 'linear' } },
      { id: newId(), at: shown(first + frames), value: [x, end], easing: { type: 'hold' } },
    ];
    return [layer];
  });
}

export const creditLayers = (piece: Piece): TextLayer[] =>
  PARTS.flatMap(([part]) => piece.layers.filter((layer): layer is TextLayer => hasRole(layer, part)));

/** The rows of a roll that stands in a piece, as its layers say them. */
export function creditRows(piece: Piece): CreditRow[] {
  const lines = (part: PhraseTag['role']) =>
    piece.layers.find((layer): layer is TextLayer => hasRole(layer, part))?.content.text.split('\n') ?? [];
  const [roles, names, headings] = [lines('credit-role'), lines('credit-name'), lines('credit-heading')];
  return Array.from({ length: Math.max(roles.length, names.length, headings.length) }, (_, i): CreditRow => {
    if (headings[i]) return { kind: 'heading', text: headings[i] };
    return names[i] || roles[i] ? { kind: 'name', role: roles[i] ?? '', name: names[i] ?? '' } : { kind: 'gap' };
  });
}
