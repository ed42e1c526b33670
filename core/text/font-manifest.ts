import * as z from 'zod';
import { fontAxisSchema } from './variation';

/** What font files there are: the shipped ones as scripts/build-fonts.mjs writes them, and a piece's own. */
export const fontFileSchema = z.object({
  /** Path below the fonts folder; also the file's name in caches. */
  path: z.string(),
  family: z.string(),
  italic: z.boolean(),
  /** Least and most weight the file has. */
  weights: z.tuple([z.number(), z.number()]),
  /** Inclusive code point ranges the file covers, ascending, flattened: from, to, from, to … */
  ranges: z.array(z.number()),
});
export type FontFile = z.infer<typeof fontFileSchema>;

export const fontManifestSchema = z.object({
  files: z.array(fontFileSchema),
  families: z.record(z.string(), z.object({ italic: z.boolean(), axes: z.array(fontAxisSchema) })),
});
export type FontManifest = z.infer<typeof fontManifestSchema>;

export function covers(file: FontFile, codePoint: number): boolean {
  const { ranges } = file;
  for (let i = 0; i < ranges.length; i += 2) if (codePoint >= ranges[i]! && codePoint <= ranges[i + 1]!) return true;
  return false;
}

/**
 * How far a file is from a wanted weight. Files that miss it are tried as CSS Fonts 4, section 5.2 does: from 400 to
 * 500 upwards first, below that the lighter, above that the heavier first.
 */
function weightDistance([min, max]: readonly [number, number], wanted: number): number {
  if (wanted >= min && wanted <= max) return 0;
  const isHeavier = min > wanted;
  const gap = isHeavier ? min - wanted : wanted - max;
  const isPreferred = wanted < 400 ? !isHeavier : wanted > 500 ? isHeavier : isHeavier && min <= 500;
  return isPreferred ? gap : gap + 1000;
}

const byFamily = new WeakMap<FontManifest, ReadonlyMap<string, readonly FontFile[]>>();
function filesOfFamily(manifest: FontManifest, family: string): readonly FontFile[] {
  let index = byFamily.get(manifest);
  if (!index) {
    const families = new Map<string, FontFile[]>();
    for (const file of manifest.files) {
      const files = families.get(file.family);
      if (files) files.push(file);
      else families.set(file.family, [file]);
    }
    byFamily.set(manifest, (index = families));
  }
  return index.get(family) ?? [];
}

/**
 * The files of a family in the wanted slope (upright if it has no italic, italic if it has nothing else), the nearest
 * weight first.
 */
export function familyFiles(manifest: FontManifest, family: string, italic: boolean, weight = 400): FontFile[] {
  const all = filesOfFamily(manifest, family);
  const sloped = all.filter((file) => file.italic === italic);
  return (sloped.length > 0 ? sloped : all)
    .map((file) => ({ file, away: weightDistance(file.weights, weight) }))
    .sort((a, b) => a.away - b.away)
    .map(({ file }) => file);
}

/** The weights at which the files of a family begin; one for a family of one weight range. */
export const weightsOf = (manifest: FontManifest, family: string): number[] => [
  ...new Set(filesOfFamily(manifest, family).map((f) => f.weights[0])),
];
