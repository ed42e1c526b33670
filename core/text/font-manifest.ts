import { z } from 'zod';
import { FALLBACKS } from './font-families';

/** What font files there are: written by scripts/build-fonts.mjs, read by both hosts. */
export const fontFileSchema = z.object({
  /** Path below the fonts folder; also the file's name in caches. */
  path: z.string(),
  family: z.string(),
  italic: z.boolean(),
  /** Inclusive code point ranges the file covers, ascending, flattened: from, to, from, to … */
  ranges: z.array(z.number()),
});
export type FontFile = z.infer<typeof fontFileSchema>;

export const fontManifestSchema = z.object({
  files: z.array(fontFileSchema),
  families: z.record(z.string(), z.object({ minWeight: z.number(), maxWeight: z.number(), italic: z.boolean() })),
});
export type FontManifest = z.infer<typeof fontManifestSchema>;

export function covers(file: FontFile, codePoint: number): boolean {
  const { ranges } = file;
  for (let i = 0; i < ranges.length; i += 2) if (codePoint >= ranges[i]! && codePoint <= ranges[i + 1]!) return true;
  return false;
}

/** The files of a family in the wanted slope (upright if it has no italic). */
export function familyFiles(manifest: FontManifest, family: string, italic: boolean): FontFile[] {
  const wanted = italic && (manifest.families[family]?.italic ?? false);
  return manifest.files.filter((file) => file.family === family && file.italic === wanted);
}

/** The file to draw a code point with: of the family, else of the fallbacks in order; null if no font that ships has it. */
export function fileForCodePoint(manifest: FontManifest, family: string, italic: boolean, codePoint: number): FontFile | null {
  for (const candidate of [family, ...FALLBACKS]) {
    for (const file of familyFiles(manifest, candidate, italic)) if (covers(file, codePoint)) return file;
  }
  return null;
}

/** Every file that a text needs, without repeats. The family's own Latin file is always among them: it gives the line metrics. */
export function filesForText(manifest: FontManifest, family: string, italic: boolean, text: string): FontFile[] {
  const out = new Map<string, FontFile>();
  for (const char of `x ${text}`) {
    const file = fileForCodePoint(manifest, family, italic, char.codePointAt(0) ?? 32);
    if (file) out.set(file.path, file);
  }
  return [...out.values()];
}
