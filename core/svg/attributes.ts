import type { Box } from '../geometry';

const PLACES = 10_000;
/** A number as it stands in the file. */
export const n = (value: number): string => String(Math.round(value * PLACES) / PLACES);

/** Attributes of an element, each behind a space. Texts stand as they are: what comes from outside is escaped before. */
export const attributes = (values: Readonly<Record<string, string | number>>): string =>
  Object.entries(values)
    .map(([name, value]) => ` ${name}="${typeof value === 'number' ? n(value) : value}"`)
    .join('');

type Place = readonly [number, number];
export const lineOf = ([x1, y1]: Place, [x2, y2]: Place): Record<string, number> => ({ x1, y1, x2, y2 });

export const boxOf = ([l, t, r, b]: Box): Record<string, number> => ({ x: l, y: t, width: r - l, height: b - t });
