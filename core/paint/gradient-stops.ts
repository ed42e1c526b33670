import { alphaOf, mixStraight } from '../colour';
import type { Colour } from '../colour';
import type { Gradient } from '../piece';

/** Stops of a gradient as the canvas takes them: in ascending order, from 0 to 1 of the way it is given. */
export type Stops = readonly (readonly [at: number, colour: Colour])[];

/** Stops put between two whose opacity differs. */
const BETWEEN = 8;

/**
 * Colours mix in sRGB with straight alpha, as SVG 2 has it (section 14.2.4). Hosts differ in whether they premultiply, so
 * that stops between say it where opacity changes.
 */
export function straightStops(stops: Gradient['stops']): Stops {
  const out: [number, Colour][] = [];
  stops.forEach(({ at, colour }, i) => {
    const next = stops[i + 1];
    out.push([at, colour]);
    if (!next || next.at <= at) return;
    if (alphaOf(colour) === alphaOf(next.colour)) return;
    for (let k = 1; k < BETWEEN; k++) {
      const t = k / BETWEEN;
      out.push([at + (next.at - at) * t, mixStraight(colour, next.colour, t)]);
    }
  });
  return out;
}

/** Most times a gradient begins anew within what is painted: finer ones are no more than their mean colour. */
const MOST_PERIODS = 200;

/**
 * The stops of a gradient that goes on beyond its ends, from `first` to `last` times its own way (whole numbers).
 */
export function spreadStops(stops: Stops, spread: 'reflect' | 'repeat', first: number, last: number): Stops {
  const whole = last - first;
  if (whole > MOST_PERIODS) return stops;
  const out: [number, Colour][] = [];
  for (let period = first; period < last; period++) {
    const turned = spread === 'reflect' && period % 2 !== 0;
    const own = turned ? [...stops].reverse().map(([at, colour]) => [1 - at, colour] as const) : stops;
    // Ends are stops of their own, so that nothing bleeds from one period into the next.
    const edges: Stops = [[0, own[0]![1]], ...own, [1, own.at(-1)![1]]]; // a gradient has stops
    for (const [at, colour] of edges) out.push([(period - first + at) / whole, colour]);
  }
  return out;
}
