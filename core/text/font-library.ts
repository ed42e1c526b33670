import { createHarfBuzzFace } from './harfbuzz-face';
import type { HarfBuzz } from './harfbuzz-face';
import { fileForCluster, filesForText } from './font-choice';
import type { FaceStyle } from './font-choice';
import { HAN_FAMILIES } from './font-families';
import type { HanFamily } from './font-families';
import { weightsOf } from './font-manifest';
import type { FontFile, FontManifest } from './font-manifest';
import type { LetterCluster } from './letter-clusters';
import type { ShapingFace } from './shaper';
import type { FontAxis } from './variation';

/**
 * Loaded faces by file. Loading is the host's; looking up is synchronous, so that a scene can be resolved without
 * waiting.
 */
export interface FontLibrary {
  readonly manifest: FontManifest;
  /** Grows with every file loaded; part of cache keys, so that text is laid out anew when its font arrives. */
  readonly generation: number;
  /** Loads the files a text needs. Rejects if a file cannot be read, once those that stand in for it are loaded. */
  load(family: string, italic: boolean, text: string): Promise<void>;
  isLoaded(family: string, italic: boolean, text: string): boolean;
  /**
   * The face that draws a cluster as a whole, of the Han families `han` first (that of Japan if left out): `none` if no
   * font has it, null if its file is not loaded.
   */
  faceFor(
    style: FaceStyle,
    cluster: Pick<LetterCluster, 'text' | 'isEmoji'>,
    han?: HanFamily,
  ): ShapingFace | 'none' | null;
  /** This library and some files more, as of a piece that brings its own; the shipped faces stay shared. */
  withFiles(files: readonly OwnFontFile[], read: (path: string) => Promise<Uint8Array>): FontLibrary;
}

/** A font file that does not ship, with the axes it has. */
export interface OwnFontFile extends FontFile {
  readonly axes: readonly FontAxis[];
}

interface Shared {
  readonly faces: Map<string, ShapingFace>;
  readonly pending: Map<string, Promise<void>>;
  generation: number;
}

export function createFontLibrary(
  hb: HarfBuzz,
  manifest: FontManifest,
  read: (path: string) => Promise<Uint8Array>,
  shared: Shared = { faces: new Map(), pending: new Map(), generation: 0 },
): FontLibrary {
  const { faces, pending } = shared;
  // Files that could not be read: until they are, other fonts stand in.
  const broken = new Set<string>();
  let usable = manifest;
  // Weight only matters to families of several files.
  const weighed = new Map<string, boolean>();
  const isWeighed = (family: string): boolean => {
    let known = weighed.get(family);
    if (known === undefined) weighed.set(family, (known = weightsOf(manifest, family).length > 1));
    return known;
  };

  const loadFile = (path: string): Promise<void> => {
    let promise = pending.get(path);
    if (!promise) {
      promise = read(path).then(
        (bytes) => {
          faces.set(path, createHarfBuzzFace(hb, path, bytes));
          shared.generation++;
        },
        (error: unknown) => {
          pending.delete(path);
          throw error;
        },
      );
      pending.set(path, promise);
    }
    return promise;
  };

  return {
    manifest,
    get generation() {
      return shared.generation;
    },
    async load(family, italic, text) {
      const files = filesForText(manifest, family, italic, text);
      const results = await Promise.allSettled(files.map((file) => loadFile(file.path)));
      const failed = results.find((result) => result.status === 'rejected');
      const before = broken.size;
      results.forEach((result, i) =>
        result.status === 'rejected' ? broken.add(files[i]!.path) : broken.delete(files[i]!.path),
      );
      if (broken.size !== before) {
        usable =
          broken.size === 0
            ? manifest
            : { ...manifest, files: manifest.files.filter((file) => !broken.has(file.path)) };
        shared.generation++;
      }
      if (!failed) return;
      await Promise.all(filesForText(usable, family, italic, text).map((file) => loadFile(file.path)));
      throw failed.reason;
    },
    isLoaded: (family, italic, text) =>
      filesForText(manifest, family, italic, text).every((file) => faces.has(file.path)),
    faceFor({ family, italic, weight }, cluster, han = HAN_FAMILIES[0]) {
      const style = { family, italic, weight: isWeighed(family) ? Math.round(weight) : 400 };
      const file = fileForCluster(usable, style, cluster, han);
      return file === null ? 'none' : (faces.get(file.path) ?? null);
    },
    withFiles(files, readOwn) {
      const own = new Set(files.map((file) => file.path));
      const families = { ...manifest.families };
      for (const file of files) {
        const known = families[file.family];
        const axes = known
          ? [...known.axes, ...file.axes.filter((axis) => !known.axes.some((a) => a.tag === axis.tag))]
          : [...file.axes];
        families[file.family] = { italic: (known?.italic ?? false) || file.italic, axes };
      }
      return createFontLibrary(
        hb,
        { files: [...manifest.files, ...files], families },
        (path) => (own.has(path) ? readOwn(path) : read(path)),
        shared,
      );
    },
  };
}
