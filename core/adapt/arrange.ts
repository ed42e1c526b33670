import type { Box } from '../geometry';
import type { Block } from './blocks';
import { areTogether } from './blocks';

/** Where a block goes: its box, pixels of the format, and how many times as large as it would be there by itself. */
export interface Placed {
  readonly block: Block;
  readonly scale: number;
  readonly box: Box;
}

interface Room {
  readonly home: Box;
  readonly there: Box;
}

const width = ([l, , r]: Box): number => r - l;
const height = ([, t, , b]: Box): number => b - t;
/** Least distance of blocks, share of the room's shorter side. */
const GAP = 0.02;
/** Steps in which everything is made smaller until it has room. */
const SMALLER = 0.93;
const MOST_STEPS = 60;

/** Where the middle of a block lies in the other room: at the same share of it, as far as the block has room. */
function middle(
  from: number,
  to: number,
  [a, b]: readonly [number, number],
  [c, d]: readonly [number, number],
  size: number,
): number {
  const share = Math.min(1, Math.max(0, ((from + to) / 2 - a) / Math.max(1, b - a)));
  const at = c + share * (d - c);
  return Math.min(d - size / 2, Math.max(c + size / 2, at));
}

const across = (a: Box, b: Box, gap: number): boolean => a[0] < b[2] + gap && b[0] < a[2] + gap;

/** The blocks at a size, one under the other where they would meet; null if there is not room for all. */
function tried(blocks: readonly Block[], room: Room, sizes: readonly number[]): Placed[] | null {
  const gap = GAP * Math.min(width(room.there), height(room.there));
  const placed: { block: Block; scale: number; box: [number, number, number, number] }[] = [];
  for (const [i, block] of blocks.entries()) {
    const scale = sizes[i]!; // one for each
    const [w, h] = [width(block.there) * scale, height(block.there) * scale];
    const x = middle(block.home[0], block.home[2], [room.home[0], room.home[2]], [room.there[0], room.there[2]], w);
    const y = middle(block.home[1], block.home[3], [room.home[1], room.home[3]], [room.there[1], room.there[3]], h);
    const box: [number, number, number, number] = [x - w / 2, y - h / 2, x + w / 2, y + h / 2];
    // Below all that were read before it, stand there at the same time and are in its way.
    const least = Math.max(
      room.there[1],
      ...placed
        .filter((other) => areTogether(other.block, block) && across(other.box, box, gap))
        .map((other) => other.box[3] + gap),
    );
    if (box[1] < least) [box[1], box[3]] = [least, least + h];
    placed.push({ block, scale, box });
  }
  // What was pushed out below goes up again, and pushes what is above it.
  for (let i = placed.length - 1; i >= 0; i--) {
    const one = placed[i]!; // within the list
    const most = Math.min(
      room.there[3],
      ...placed
        .slice(i + 1)
        .filter((other) => areTogether(other.block, one.block) && across(other.box, one.box, gap))
        .map((other) => other.box[1] - gap),
    );
    if (one.box[3] > most) {
      const h = height(one.box);
      [one.box[1], one.box[3]] = [most - h, most];
    }
    if (one.box[1] < room.there[1] - 1e-6 || one.box[0] < room.there[0] - 1e-6 || one.box[2] > room.there[2] + 1e-6)
      return null;
  }
  return placed;
}

/**
 * Arranges blocks in another room: in reading order, each at its share of the room, none on another that stands at the
 * same time, all of them inside, as large as there is room for up to the wanted sizes.
 * @param wanted - how many times as large as by itself, one for each block.
 */
export function arrange(blocks: readonly Block[], room: Room, wanted: readonly number[]): Placed[] {
  let sizes = blocks.map((block, i) =>
    Math.min(
      wanted[i]!, // one for each
      width(room.there) / Math.max(1, width(block.there)),
      height(room.there) / Math.max(1, height(block.there)),
    ),
  );
  for (let step = 0; step < MOST_STEPS; step++) {
    const placed = tried(blocks, room, sizes);
    if (placed) return placed;
    sizes = sizes.map((size) => size * SMALLER);
  }
  return [];
}
