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
  'noto-sans': { label: 'Noto Sans', feel: 'Greek Cyrillic Latin plain' },
  'noto-sans-kr': { label: 'Noto Sans KR', feel: 'Korean plain' },
  'noto-sans-sc': { label: 'Noto Sans SC', feel: 'Chinese simplified plain' },
  'noto-sans-tc': { label: 'Noto Sans TC', feel: 'Chinese traditional plain' },
  'noto-sans-thai': { label: 'Noto Sans Thai', feel: 'Thai plain' },
  'noto-sans-lao': { label: 'Noto Sans Lao', feel: 'Lao plain' },
  'noto-sans-khmer': { label: 'Noto Sans Khmer', feel: 'Khmer plain' },
  'noto-sans-myanmar': { label: 'Noto Sans Myanmar', feel: 'Burmese plain' },
  'noto-sans-bengali': { label: 'Noto Sans Bengali', feel: 'Bengali Assamese plain' },
  'noto-sans-tamil': { label: 'Noto Sans Tamil', feel: 'Tamil plain' },
  'noto-sans-telugu': { label: 'Noto Sans Telugu', feel: 'Telugu plain' },
  'noto-sans-kannada': { label: 'Noto Sans Kannada', feel: 'Kannada plain' },
  'noto-sans-malayalam': { label: 'Noto Sans Malayalam', feel: 'Malayalam plain' },
  'noto-sans-gujarati': { label: 'Noto Sans Gujarati', feel: 'Gujarati plain' },
  'noto-sans-gurmukhi': { label: 'Noto Sans Gurmukhi', feel: 'Punjabi plain' },
  'noto-sans-sinhala': { label: 'Noto Sans Sinhala', feel: 'Sinhala plain' },
  'noto-sans-georgian': { label: 'Noto Sans Georgian', feel: 'Georgian plain' },
  'noto-sans-armenian': { label: 'Noto Sans Armenian', feel: 'Armenian plain' },
  'noto-sans-ethiopic': { label: 'Noto Sans Ethiopic', feel: 'Amharic Tigrinya plain' },
} as const satisfies Record<string, { label: string; feel: string }>;
export type FontFamilyId = keyof typeof FONT_FAMILIES;
export const FONT_FAMILY_IDS = Object.keys(FONT_FAMILIES) as FontFamilyId[]; // keys of a literal object
export const DEFAULT_FAMILY: FontFamilyId = 'bricolage-grotesque';

/** Families that only stand in for others (signs, emoji), with the package, or the file in it, each comes from. */
export const SUPPORT_FAMILIES = {
  'noto-sans-symbols': '@fontsource-variable/noto-sans-symbols',
  'noto-sans-symbols-2': '@fontsource/noto-sans-symbols-2',
  'noto-sans-math': '@fontsource/noto-sans-math',
  dejavu: 'dejavu-fonts-ttf/ttf/DejaVuSans.ttf',
  twemoji: 'twemoji-colr-font',
} as const;
type FallbackId = FontFamilyId | keyof typeof SUPPORT_FAMILIES;

/** Draws emoji, in colours of its own. */
export const EMOJI_FAMILY: FallbackId = 'twemoji';

/** Families with Han letters. Each draws them as its readers know them, so one family draws all of a text. */
export const HAN_FAMILIES = ['noto-sans-jp', 'noto-sans-tc', 'noto-sans-sc', 'noto-sans-kr'] as const;
export type HanFamily = (typeof HAN_FAMILIES)[number];

/** Tried in order, between what is before and behind the Han families, for letters that the chosen family lacks. */
const BEFORE_HAN: readonly FallbackId[] = ['rubik', 'noto-sans-arabic', 'noto-sans-hebrew', 'noto-sans-devanagari'];
const BEHIND_HAN: readonly FallbackId[] = [
  'spline-sans',
  'noto-sans',
  'noto-sans-thai',
  'noto-sans-lao',
  'noto-sans-khmer',
  'noto-sans-myanmar',
  'noto-sans-bengali',
  'noto-sans-tamil',
  'noto-sans-telugu',
  'noto-sans-kannada',
  'noto-sans-malayalam',
  'noto-sans-gujarati',
  'noto-sans-gurmukhi',
  'noto-sans-sinhala',
  'noto-sans-georgian',
  'noto-sans-armenian',
  'noto-sans-ethiopic',
  'noto-sans-symbols',
  'noto-sans-symbols-2',
  'noto-sans-math',
  'dejavu',
  'twemoji',
];

/** The fallbacks in order. @param first - the Han family that comes before the others. */
export const fallbacksWith = (first: HanFamily): readonly FallbackId[] => [
  ...BEFORE_HAN,
  first,
  ...HAN_FAMILIES.filter((family) => family !== first),
  ...BEHIND_HAN,
];
export const FALLBACKS = fallbacksWith(HAN_FAMILIES[0]);
