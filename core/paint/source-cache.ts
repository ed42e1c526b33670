import { sourceKey } from './item-kinds';
import type { Source } from '../scene';

/** Pixels of a picture or of a frame of footage, as a host keeps them. */
export interface LoadedImage {
  readonly image: unknown;
  /** Pixels. */
  readonly width: number;
  readonly height: number;
}

/** What a host has fetched for painting. What was not used for longest goes first when there is too much of it. */
export interface SourceCache {
  get(source: Source): LoadedImage | null;
  /** Whether all of these are there. */
  has(sources: readonly Source[]): boolean;
  /**
   * Loads what is not there yet; what cannot be loaded is asked for again by the next call. What one call names stays
   * until the next call, however much it is.
   * @returns Whether anything arrived. Rejects with the first thing that cannot be loaded, after the rest has arrived.
   */
  fetch(sources: readonly Source[]): Promise<boolean>;
}

/** 200 megapixels: 800 MB, three pictures of the largest size there is and some more. */
export const MOST_CACHED_PIXELS = 200_000_000;

/**
 * @param mostPixels - how much is kept beyond what is needed at the moment.
 * @param release - told of each image that is not kept any longer.
 */
export function createSourceCache(
  load: (source: Source) => Promise<LoadedImage>,
  mostPixels = MOST_CACHED_PIXELS,
  release: (image: LoadedImage) => void = () => {},
): SourceCache {
  /** In the order of their last use. */
  const loaded = new Map<string, LoadedImage>();
  const loading = new Map<string, Promise<void>>();
  let pixels = 0;

  const touch = (key: string): LoadedImage | null => {
    const found = loaded.get(key);
    if (!found) return null;
    loaded.delete(key);
    loaded.set(key, found);
    return found;
  };
  const shrink = (needed: ReadonlySet<string>): void => {
    for (const [key, image] of loaded) {
      if (pixels <= mostPixels) return;
      if (needed.has(key)) continue;
      loaded.delete(key);
      pixels -= image.width * image.height;
      release(image);
    }
  };
  const start = (source: Source, key: string): Promise<void> =>
    load(source)
      .then((image) => {
        loaded.set(key, image);
        pixels += image.width * image.height;
      })
      .finally(() => loading.delete(key));

  return {
    get: (source) => touch(sourceKey(source)),
    has: (sources) => sources.every((source) => loaded.has(sourceKey(source))),
    async fetch(sources) {
      const wanted = sources.filter((source) => touch(sourceKey(source)) === null);
      if (wanted.length === 0) return false;
      const outcomes = await Promise.allSettled(
        wanted.map((source) => {
          const key = sourceKey(source);
          const underway = loading.get(key) ?? start(source, key);
          loading.set(key, underway);
          return underway;
        }),
      );
      shrink(new Set(sources.map(sourceKey)));
      const failed = outcomes.find((outcome) => outcome.status === 'rejected');
      if (failed) throw failed.reason;
      return true;
    },
  };
}
