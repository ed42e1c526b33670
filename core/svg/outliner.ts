import { DEFAULT_FAMILY, FONT_FAMILIES, FONT_FAMILY_IDS, UNITS, layoutText, transformOutline } from '../text';
import type { FontLibrary, TextStyle } from '../text';

/** Words as outlines. */
export interface Outliner {
  /** The family that stands for the names a file asks for, the first that is known; and whether one was. */
  readonly familyFor: (names: readonly string[]) => { readonly family: string; readonly isKnown: boolean };
  /** The outline with its baseline at 0 and its left end at 0, and how wide it is; pixels. */
  readonly outline: (text: string, look: TextLook) => { readonly d: string; readonly width: number };
}

export interface TextLook {
  readonly family: string;
  readonly size: number;
  readonly weight: number;
  readonly isItalic: boolean;
  /** Pixels after each letter. */
  readonly spacing: number;
}

/** Families for the general names of CSS. */
const GENERAL: Readonly<Record<string, string>> = {
  serif: 'literata',
  'sans-serif': 'spline-sans',
  monospace: 'spline-sans-mono',
  cursive: 'caveat',
  fantasy: 'unbounded',
  'system-ui': 'spline-sans',
};

const plain = (name: string): string => name.toLowerCase().replace(/[^a-z0-9]/g, '');
const BY_NAME = new Map<string, string>(
  FONT_FAMILY_IDS.flatMap((id) => [
    [plain(id), id],
    [plain(FONT_FAMILIES[id].label), id],
    [plain(`${FONT_FAMILIES[id].label} Variable`), id],
  ]),
);

/**
 * An outliner by a font library.
 * @param onMissing - told of what has to be loaded before the same words can be had as outlines.
 */
export function createOutliner(
  fonts: FontLibrary,
  onMissing: (family: string, isItalic: boolean, text: string) => void,
): Outliner {
  return {
    familyFor(names) {
      for (const name of names) {
        const family = BY_NAME.get(plain(name)) ?? GENERAL[name.toLowerCase()];
        if (family !== undefined) return { family, isKnown: true };
      }
      return { family: DEFAULT_FAMILY, isKnown: names.length === 0 };
    },
    outline(text, { family, size, weight, isItalic, spacing }) {
      if (!fonts.isLoaded(family, isItalic, text)) onMissing(family, isItalic, text);
      const style: TextStyle = {
        family,
        italic: isItalic,
        weight,
        tracking: spacing / size,
        leading: 1,
        align: 'left',
        wrapWidth: null,
      };
      const layout = layoutText(text, style, fonts);
      const [line] = layout.lines;
      const k = size / UNITS;
      if (!line) return { d: '', width: 0 };
      const d = transformOutline(layout.path, k, k, -line.x * k, -line.baseline * k);
      // A line's width is that of its words: spaces at its end are measured by what would follow them.
      const ends = /\s$/.test(text) ? layoutText(`${text}.`, style, fonts).glyphs.at(-1) : undefined;
      return { d, width: (ends ? ends.x - line.x : line.width) * k + (ends ? 0 : spacing) };
    },
  };
}
