/**
 * The families that ship with the app, by character. The id is the package name under @fontsource-variable; `feel`
 * words are for searching. `scripts` beyond Latin are what the family itself covers; a letter that it lacks is taken
 * from the families in FALLBACKS.
 */
export const FONT_FAMILIES = {
  'bricolage-grotesque': { label: 'Bricolage Grotesque', feel: 'lively poster grotesque' },
  'spline-sans': { label: 'Spline Sans', feel: 'quiet clear interface' },
  'spline-sans-mono': { label: 'Spline Sans Mono', feel: 'technical typewriter numbers' },
  fraunces: { label: 'Fraunces', feel: 'warm soft old-style serif' },
  'playfair-display': { label: 'Playfair Display', feel: 'elegant contrast serif fashion' },
  literata: { label: 'Literata', feel: 'bookish reading serif' },
  oswald: { label: 'Oswald', feel: 'condensed headline sport' },
  'big-shoulders-display': { label: 'Big Shoulders Display', feel: 'tall condensed industrial' },
  unbounded: { label: 'Unbounded', feel: 'wide round future' },
  syne: { label: 'Syne', feel: 'art gallery wide strange' },
  comfortaa: { label: 'Comfortaa', feel: 'round friendly geometric' },
  grandstander: { label: 'Grandstander', feel: 'playful comic hand' },
  caveat: { label: 'Caveat', feel: 'handwriting note' },
  recursive: { label: 'Recursive', feel: 'casual brush signwriter to code, leans' },
  rubik: { label: 'Rubik', feel: 'rounded square Hebrew Cyrillic Arabic' },
  'noto-sans-arabic': { label: 'Noto Sans Arabic', feel: 'Arabic plain' },
  'noto-sans-hebrew': { label: 'Noto Sans Hebrew', feel: 'Hebrew plain' },
  'noto-sans-devanagari': { label: 'Noto Sans Devanagari', feel: 'Devanagari plain' },
  'noto-sans-jp': { label: 'Noto Sans JP', feel: 'Japanese plain' },
} as const satisfies Record<string, { label: string; feel: string }>;
export type FontFamilyId = keyof typeof FONT_FAMILIES;
export const FONT_FAMILY_IDS = Object.keys(FONT_FAMILIES) as FontFamilyId[]; // keys of a literal object
export const DEFAULT_FAMILY: FontFamilyId = 'bricolage-grotesque';

/** Tried in order for letters that the chosen family has not. */
export const FALLBACKS: readonly FontFamilyId[] = [
  'rubik',
  'noto-sans-arabic',
  'noto-sans-hebrew',
  'noto-sans-devanagari',
  'noto-sans-jp',
  'spline-sans',
];
