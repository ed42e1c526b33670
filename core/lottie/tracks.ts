import { readPoints } from '../geometry';
import type { Cover, Look, PaintLook, ShapeLook } from './look';

/**
 * Which looks of frame after frame are the same thing that moves. A thing keeps its make-up; where that changes, another
 * takes its place. Things keep their order: whatever is below another in one frame is never above it.
 */
export interface Thing<R extends Recording> {
  readonly makeUp: string;
  readonly first: number;
  /** The first frame without it. */
  end: number;
  /** What records it. */
  readonly recorded: R;
  readonly children: Things<R> | null;
  readonly cover: Things<R> | null;
  /** Its look in the frame before. */
  look: Look;
}

/** Takes down the looks of one thing, frame after frame. */
export interface Recording {
  push(frame: number, look: Look): void;
}

const paintMakeUp = (paint: PaintLook): string => {
  const { tone } = paint;
  const stops =
    tone.type === 'solid' ? '' : `${tone.stops.length}${tone.stops.some(([, c]) => c.length > 7) ? 'a' : ''}`;
  if (paint.use === 'fill') return `f${tone.type}${stops}${paint.rule}`;
  const { cap, join, dash } = paint.style;
  return `s${tone.type}${stops}${cap}${join}${dash.length}`;
};

/** Points and ends of the contours of a path, by its text. */
const formOf = (path: string): string =>
  readPoints(path)
    .map(({ points, isClosed }) => `${points.length}${isClosed ? 'z' : ''}`)
    .join();

const shapeMakeUp = (shape: ShapeLook, form: (path: string) => string): string =>
  `${form(shape.path)}|${shape.paints.map(paintMakeUp).join()}`;

const coverMakeUp = (cover: Cover | null): string => (cover ? `${cover.channel}${cover.inverted}` : '');

function makeUpOf(look: Look, form: (path: string) => string): string {
  const { what } = look;
  const own = what.type === 'shape' ? shapeMakeUp(what, form) : what.type === 'picture' ? what.hash : '';
  return `${look.layerId}/${what.type}/${own}/${look.blend}/${look.blur > 0}/${look.clip?.length ?? 0}/${coverMakeUp(look.cover)}`;
}

const pathKeyOf = ({ what }: Look): string => (what.type === 'shape' ? what.pathKey : '');

/** Forms of paths that were met, so that each is read once. */
export class Forms {
  private readonly known = new Map<string, string>();
  readonly of = (path: string): string => {
    let form = this.known.get(path);
    if (form === undefined) {
      // Paths that change from frame to frame would fill it.
      if (this.known.size > 5000) this.known.clear();
      this.known.set(path, (form = formOf(path)));
    }
    return form;
  };
}

export class Things<R extends Recording> {
  /** All that ever were, the first at the bottom. */
  readonly all: Thing<R>[] = [];
  /** Those of the frame before, in order. */
  private present: readonly Thing<R>[] = [];

  constructor(
    private readonly forms: Forms,
    private readonly record: (look: Look) => R,
  ) {}

  /** @param frame - follows the one before. */
  push(frame: number, looks: readonly Look[]): void {
    const makeUps = looks.map((look) => makeUpOf(look, this.forms.of));
    const found = this.match(frame, looks, makeUps);
    let place = -1;
    this.present = looks.map((look, i) => {
      let thing = found[i] ?? null;
      if (thing) place = this.all.indexOf(thing, place + 1);
      else {
        thing = this.begin(frame, look, makeUps[i]!);
        this.all.splice(++place, 0, thing);
      }
      thing.end = frame + 1;
      thing.look = look;
      thing.recorded.push(frame, look);
      if (look.what.type === 'composition') thing.children?.push(frame, look.what.children);
      if (look.cover) thing.cover?.push(frame, look.cover.looks);
      return thing;
    });
  }

  private begin(frame: number, look: Look, makeUp: string): Thing<R> {
    const things = (): Things<R> => new Things(this.forms, this.record);
    const children = look.what.type === 'composition' ? things() : null;
    return {
      makeUp,
      first: frame,
      end: frame + 1,
      recorded: this.record(look),
      children,
      cover: look.cover ? things() : null,
      look,
    };
  }

  /** For each look the thing that it goes on with, if there is one, in the order of the things. */
  private match(frame: number, looks: readonly Look[], makeUps: readonly string[]): (Thing<R> | null)[] {
    const places = new Map<Thing<R>, number>();
    const free = new Map<string, Thing<R>[]>();
    const offer = (key: string, thing: Thing<R>): void => void (free.get(key)?.push(thing) ?? free.set(key, [thing]));
    this.present.forEach((thing, place) => {
      if (thing.end !== frame) return;
      places.set(thing, place);
      offer(`${thing.makeUp}\n${pathKeyOf(thing.look)}`, thing);
    });
    // First those of the same path, then any of the same make-up.
    const found = looks.map((look, i) => free.get(`${makeUps[i]!}\n${pathKeyOf(look)}`)?.shift() ?? null);
    const taken = new Set(found);
    free.clear();
    for (const thing of places.keys()) if (!taken.has(thing)) offer(thing.makeUp, thing);
    looks.forEach((_, i) => (found[i] ??= free.get(makeUps[i]!)?.shift() ?? null));
    let last = -1;
    return found.map((thing) => {
      const place = thing ? (places.get(thing) ?? -1) : -1;
      if (!thing || place <= last) return null;
      last = place;
      return thing;
    });
  }
}
