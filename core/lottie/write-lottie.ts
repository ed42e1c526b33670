import { alphaOf } from '../colour';
import { IDENTITY } from '../geometry';
import type { DisplayList } from '../scene';
import { lookOf } from './look';
import type { Look } from './look';
import { LookReader } from './look-at';
import { LookRecord } from './recording';
import { Forms, Things } from './tracks';
import { LayerWriter } from './write-layers';
import type { LayerOptions } from './write-layers';
import type { Json } from './write-properties';

/**
 * Frames as a Lottie file (Lottie 1.0.1): what is painted frame by frame, as shapes that move by linear keyframes, so
 * that every frame of it looks like the painted one. Words are outlines. What the format has no means for is told.
 */
export interface WrittenLottie {
  readonly lottie: { readonly [key: string]: Json };
  /** What is not in the file as it is painted, by name, each once. */
  readonly left: readonly string[];
}

export interface LottieOptions extends LayerOptions {
  readonly name: string;
  readonly framesPerSecond: number;
}

/** The version of the format in whose terms files are written. */
const VERSION = '5.7.0';

export class LottieWriter {
  private readonly reader: LookReader;
  private readonly things = new Things(new Forms(), (look) => new LookRecord(look));
  private count = 0;

  constructor(private readonly options: LottieOptions) {
    this.reader = new LookReader(options.picture);
  }

  /** The next frame. */
  push(list: DisplayList): void {
    const looks = this.reader.looks(list.items);
    this.things.push(this.count++, [...ground(list), ...looks]);
  }

  /** @throws RangeError if there was no frame. */
  finish(): WrittenLottie {
    if (this.count === 0) throw new RangeError('there is no frame');
    const { width, height, name, framesPerSecond } = this.options;
    const writer = new LayerWriter(this.options);
    const layers = writer.layers(this.things);
    return {
      lottie: {
        v: VERSION,
        nm: name,
        fr: framesPerSecond,
        ip: 0,
        op: this.count,
        w: width,
        h: height,
        ddd: 0,
        assets: writer.assets,
        layers,
      },
      left: [...this.reader.left],
    };
  }
}

function ground({ width, height, background }: DisplayList): readonly Look[] {
  if (alphaOf(background) === 0) return [];
  const path = { path: `M0 0L${width} 0L${width} ${height}L0 ${height}Z`, pathKey: 'ground', matrix: IDENTITY };
  const tone = { type: 'solid', colour: background } as const;
  return [lookOf('', { type: 'shape', ...path, paints: [{ use: 'fill', tone, rule: 'nonzero' }] })];
}
