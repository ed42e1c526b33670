import { createHarfBuzzFace } from './harfbuzz-face';
import type { HarfBuzz } from './harfbuzz-face';
import { fileForCodePoint, filesForText } from './font-manifest';
import type { FontManifest } from './font-manifest';
import type { ShapingFace } from './shaper';

/** Loaded faces by file. Loading is the host's; looking up is synchronous, so that a scene can be resolved without waiting. */
export interface FontLibrary {
  readonly manifest: FontManifest;
  /** Grows with every file loaded; part of cache keys, so that text is laid out anew when its font arrives. */
  readonly generation: number;
  /** Loads the files a text needs. Rejects if a file cannot be read. */
  load(family: string, italic: boolean, text: string): Promise<void>;
  isLoaded(family: string, italic: boolean, text: string): boolean;
  /** The face for a code point, or null if none covers it or its file is not loaded. */
  faceFor(family: string, italic: boolean, codePoint: number): ShapingFace | null;
}

export function createFontLibrary(hb: HarfBuzz, manifest: FontManifest, read: (path: string) => Promise<Uint8Array>): FontLibrary {
  const faces = new Map<string, ShapingFace>();
  const pending = new Map<string, Promise<void>>();
  const lookups = new Map<string, string | null>();
  let generation = 0;

  const pathFor = (family: string, italic: boolean, codePoint: number): string | null => {
    const key = `${family}/${italic ? 'i' : 'r'}/${codePoint}`;
    let path = lookups.get(key);
    if (path === undefined) {
      path = fileForCodePoint(manifest, family, italic, codePoint)?.path ?? null;
      lookups.set(key, path);
    }
    return path;
  };

  const loadFile = (path: string): Promise<void> => {
    let promise = pending.get(path);
    if (!promise) {
      promise = read(path).then(
        (bytes) => {
          faces.set(path, createHarfBuzzFace(hb, path, bytes));
          generation++;
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
      return generation;
    },
    async load(family, italic, text) {
      await Promise.all(filesForText(manifest, family, italic, text).map((file) => loadFile(file.path)));
    },
    isLoaded: (family, italic, text) => filesForText(manifest, family, italic, text).every((file) => faces.has(file.path)),
    faceFor(family, italic, codePoint) {
      const path = pathFor(family, italic, codePoint);
      return path === null ? null : faces.get(path) ?? null;
    },
  };
}
