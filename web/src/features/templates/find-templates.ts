import Fuse from 'fuse.js';
import { TEMPLATE_USES } from '@core/piece';
import type { Piece, TemplateUse } from '@core/piece';

/** Lengths to look for, seconds at the tempo of the piece. */
export const LENGTHS = { short: [0, 6], middle: [6, 12], long: [12, Infinity] } as const;
export type LengthId = keyof typeof LENGTHS;

export interface Wanted {
  readonly search: string;
  readonly use: TemplateUse | null;
  readonly length: LengthId | null;
}

/** Templates that fit, the best first where something is searched for. */
export function findTemplates(
  templates: readonly Piece[],
  { search, use, length }: Wanted,
  secondsOf: (template: Piece) => number,
): Piece[] {
  const [least, most] = length ? LENGTHS[length] : [0, Infinity];
  const fitting = templates.filter((one) => {
    const seconds = secondsOf(one);
    return (!use || one.template?.use === use) && seconds > least - 1e-6 && seconds <= most + 1e-6;
  });
  if (search.trim() === '') return fitting;
  const rows = fitting.map((one) => ({
    one,
    name: one.name,
    mood: one.template?.mood ?? '',
    more: `${one.template?.help ?? ''} ${one.template ? TEMPLATE_USES[one.template.use] : ''}`,
  }));
  const fuse = new Fuse(rows, {
    keys: [
      { name: 'name', weight: 3 },
      { name: 'mood', weight: 2 },
      { name: 'more', weight: 1 },
    ],
    threshold: 0.32,
    ignoreLocation: true,
  });
  return fuse.search(search.trim()).map(({ item }) => item.one);
}
