import { createMemo } from '../time';
import { EMOJI_FAMILY, HAN_FAMILIES, fallbacksWith } from './font-families';
import type { HanFamily } from './font-families';
import { covers, familyFiles, weightsOf } from './font-manifest';
import type { FontFile, FontManifest } from './font-manifest';
import { letterClusters, seenPoints } from './letter-clusters';
import type { LetterCluster } from './letter-clusters';

/**
 * Which font file draws which letters.
 *
 * The chosen family comes first, then the fallbacks in order. A letter and the marks on it come from one file, since
 * marks of another font do not know where the letter ends. Han letters look different in Japan, Taiwan and China, so a
 * whole paragraph takes them from one family: by the other letters in it (kana, hangul, bopomofo), or else from the
 * first family that has all of them. Only the Chinese families have the simplified ones.
 */

/** A style as far as the choice of files goes. */
export interface FaceStyle {
  readonly family: string;
  readonly italic: boolean;
  readonly weight: number;
}

const HAN = /\p{Script=Han}/u;
const HINTS: readonly (readonly [RegExp, HanFamily])[] = [
  [/[\p{Script=Hiragana}\p{Script=Katakana}]/u, 'noto-sans-jp'],
  [/\p{Script=Hangul}/u, 'noto-sans-kr'],
  [/\p{Script=Bopomofo}/u, 'noto-sans-tc'],
];

const familyCovers = (manifest: FontManifest, family: string, codePoint: number): boolean =>
  familyFiles(manifest, family, false).some((file) => covers(file, codePoint));

/** The family that draws the Han letters of a paragraph. */
export function hanFamilyFor(manifest: FontManifest, paragraph: string): HanFamily {
  if (!HAN.test(paragraph)) return HINTS.find(([letters]) => letters.test(paragraph))?.[1] ?? HAN_FAMILIES[0];
  const points = [...new Set(paragraph)].filter((char) => HAN.test(char)).map((char) => char.codePointAt(0) ?? 32);
  const hinted = HINTS.find(([letters]) => letters.test(paragraph))?.[1];
  const order = hinted ? [hinted, ...HAN_FAMILIES] : HAN_FAMILIES;
  const shares = order.map((family) => points.filter((point) => familyCovers(manifest, family, point)).length);
  return order[shares.indexOf(Math.max(...shares))]!;
}

const hasAll = (file: FontFile, text: string): boolean => seenPoints(text).every((point) => covers(file, point));

interface Known {
  readonly files: (key: string, compute: () => FontFile | null) => FontFile | null;
}
/** Answers kept for each manifest: the same few letters are asked for again and again. */
const MAX_KNOWN = 20_000;
const known = new WeakMap<FontManifest, Known>();
const knownOf = (manifest: FontManifest): Known => {
  let own = known.get(manifest);
  if (!own) known.set(manifest, (own = { files: createMemo<FontFile | null>(MAX_KNOWN) }));
  return own;
};

/**
 * The file that draws a cluster as a whole.
 * @param han - the family that comes before the other Han families.
 * @returns null if none does: its code points may still have files of their own.
 */
export function fileForCluster(
  manifest: FontManifest,
  { family, italic, weight }: FaceStyle,
  { text, isEmoji }: Pick<LetterCluster, 'text' | 'isEmoji'>,
  han: HanFamily,
): FontFile | null {
  const key = `${family}/${italic ? 'i' : 'r'}${weight}/${han}/${isEmoji ? 'e' : ''}${text}`;
  return knownOf(manifest).files(key, () => {
    const own = familyFiles(manifest, family, italic, weight);
    if (isEmoji) {
      const file = [...own, ...familyFiles(manifest, EMOJI_FAMILY, false)].find((f) => hasAll(f, text));
      if (file) return file;
    }
    // As it is written or composed; failing that, by its parts, which the shaper puts together.
    for (const forms of [[text, text.normalize('NFC')], [text.normalize('NFD')]]) {
      for (const candidate of [family, ...fallbacksWith(han)]) {
        const files = candidate === family ? own : familyFiles(manifest, candidate, italic, weight);
        const file = files.find((f) => forms.some((form) => hasAll(f, form)));
        if (file) return file;
      }
    }
    return null;
  });
}

/** The file for one character, with the Han letters of Japan first. */
export const fileForCodePoint = (
  manifest: FontManifest,
  family: string,
  italic: boolean,
  weight: number,
  codePoint: number,
): FontFile | null =>
  fileForCluster(
    manifest,
    { family, italic, weight },
    { text: String.fromCodePoint(codePoint), isEmoji: false },
    HAN_FAMILIES[0],
  );

/**
 * Every file that a text needs, without repeats; the family's own Latin file, which gives the line metrics, is among
 * them. All weights of a family of several files are, because a weight can be animated. For Han letters so are the
 * files of each family up to the one that draws the paragraph: parts of it, set alone, may be drawn by an earlier one.
 */
export function filesForText(manifest: FontManifest, family: string, italic: boolean, text: string): FontFile[] {
  const weights = weightsOf(manifest, family);
  const out = new Map<string, FontFile>();
  const add = (cluster: Pick<LetterCluster, 'text' | 'isEmoji'>, han: HanFamily): void => {
    for (const weight of weights.length > 0 ? weights : [400]) {
      const file = fileForCluster(manifest, { family, italic, weight }, cluster, han);
      if (file) out.set(file.path, file);
      else if (cluster.text.length > 1 && [...cluster.text].length > 1)
        for (const char of cluster.text) add({ text: char, isEmoji: false }, han);
    }
  };
  for (const char of 'x ') add({ text: char, isEmoji: false }, HAN_FAMILIES[0]);
  for (const paragraph of text.split('\n')) {
    const han = hanFamilyFor(manifest, paragraph);
    const reach = HAN_FAMILIES.slice(0, HAN_FAMILIES.indexOf(han) + 1);
    const seen = new Set<string>();
    for (const cluster of letterClusters(paragraph)) {
      if (seen.has(cluster.text)) continue;
      seen.add(cluster.text);
      for (const one of HAN.test(cluster.text) ? reach : [han]) add(cluster, one);
    }
  }
  return [...out.values()];
}
