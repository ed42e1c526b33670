import { sourceKey } from '@core/paint';
import type { Source, SourceCache } from '@core/paint';

/** What the fetcher works with: sources whole, and frames of footage small. */
export interface Fetched {
  readonly sources: Pick<SourceCache, 'has' | 'fetch'>;
  readonly drafts: Pick<SourceCache, 'has' | 'fetch'>;
}

/** Frames of footage that are fetched before they are to be seen, while it plays. */
const AHEAD = 12;
/** A frame that lies further off than this is no next one: the footage was cut, or the playhead was set. */
const LARGEST_STEP = 8;

/**
 * Fetches what frames of a piece show. While it plays, footage comes small and ahead of time; while it stands, small
 * first and then whole.
 */
export class NeedsFetcher {
  /** What could not be had: asked for again after the next edit, not with every frame. */
  private readonly missing = new Set<string>();
  /** The frame that was seen last, of each footage. */
  private readonly seen = new Map<string, number>();
  private asked = 0;

  /**
   * @param arrived - something has come that frames were painted without.
   * @param lengthOf - how many frames footage has, by its hash.
   */
  constructor(
    private readonly host: Fetched,
    private readonly arrived: () => void,
    private readonly failed: (error: unknown) => void,
    private readonly lengthOf: (hash: string) => number,
  ) {}

  /** What could not be had may be there now. */
  forget(): void {
    this.missing.clear();
  }

  /** @param all - what a frame shows. */
  fetch(all: readonly Source[], isPlaying: boolean): void {
    const turn = ++this.asked;
    const needs = all.filter((source) => !this.missing.has(sourceKey(source)));
    const frames = needs.filter(({ frame }) => frame !== null);
    const pictures = needs.filter(({ frame }) => frame === null);
    if (isPlaying) {
      void this.load(this.host.sources, pictures);
      void this.load(this.host.drafts, [...frames, ...frames.flatMap((source) => this.next(source))], frames);
      return;
    }
    if (this.host.sources.has(needs)) return;
    if (frames.length === 0) return void this.load(this.host.sources, needs);
    void this.load(this.host.drafts, frames).then(() => {
      // The playhead may have gone on meanwhile.
      if (turn === this.asked) void this.load(this.host.sources, needs);
    });
  }

  /** The frames that are likely to be seen next. */
  private next({ hash, frame }: Source): Source[] {
    if (frame === null) return [];
    const before = this.seen.get(hash) ?? frame - 1;
    this.seen.set(hash, frame);
    const gone = frame - before;
    const step = gone === 0 || Math.abs(gone) > LARGEST_STEP ? 1 : gone;
    return Array.from({ length: AHEAD }, (_, i) => ({ hash, frame: frame + (i + 1) * step })).filter(
      (next) => next.frame >= 0 && next.frame < this.lengthOf(hash),
    );
  }

  /** @param seen - what of it the frame shows: when the rest comes nothing has to be painted. */
  private async load(cache: Fetched['drafts'], wanted: readonly Source[], seen = wanted): Promise<void> {
    if (wanted.length === 0 || cache.has(wanted)) return;
    const wasThere = cache.has(seen);
    try {
      await cache.fetch(wanted);
    } catch (error) {
      for (const source of wanted) if (!cache.has([source])) this.missing.add(sourceKey(source));
      this.failed(error);
    }
    if (!wasThere) this.arrived();
  }
}
