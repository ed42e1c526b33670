/** Words by which templates are tried: short, long, accented, and from right to left, by the ids of slots. */
export const SAMPLE_CONTENTS = {
  sample: { label: 'Template text', values: {} },
  short: {
    label: 'Short text',
    values: { name: 'Bo Li', line: 'Pilot', name2: 'Al Wu', line2: 'Cook', title: 'Up', quote: 'Let go.', by: 'Bo' },
  },
  long: {
    label: 'Long text',
    values: {
      name: 'Maximiliana Josefina Echeverría-Castellanos',
      line: 'Head of the workshop for indoor and night kites of the harbour',
      name2: 'Bartholomäus Freiherr von Hohenstein',
      line2: 'Wind and weather, deputy head',
      title: 'The very long evening of the slowly rising lanterns',
      quote:
        'You do not fly a kite. You hold one end of a long conversation between the ground and the wind, and try not to say too much.',
      by: 'Maximiliana Josefina Echeverría-Castellanos',
    },
  },
  accents: {
    label: 'Accents',
    values: {
      name: 'Žofie Ångström-Łęcka',
      line: 'Créatrice d’été, Đà Nẵng',
      name2: 'Ïñigo Ÿşıl',
      line2: 'Œuvre à façon',
      title: 'Ñandú y Ångström',
      quote: 'Ça va où ça veut, Žofie: l’été s’élève.',
      by: 'Žofie Ångström',
    },
  },
  rtl: {
    label: 'Right to left',
    values: {
      name: 'نور الهاشمي',
      line: 'صانعة طائرات ورقية',
      name2: 'תמר לוי',
      line2: 'טייסת לילה',
      title: 'أسبوع الريح',
      quote: 'الريح لا تُمسك، بل تُصاحَب.',
      by: 'نور الهاشمي',
    },
  },
} as const satisfies Record<string, { label: string; values: Readonly<Record<string, string>> }>;
export type SampleContent = keyof typeof SAMPLE_CONTENTS;

/**
 * The words of a content for a template's slots: those it knows by name, and for other slots of words the same kind of
 * words.
 */
export function sampleValues(
  content: SampleContent,
  slots: readonly { readonly id: string; readonly kind: string }[],
): Record<string, string> {
  const known: Readonly<Record<string, string>> = SAMPLE_CONTENTS[content].values;
  if (content === 'sample') return {};
  const words = [known.line, known.line2];
  let next = 0;
  return Object.fromEntries(
    slots.flatMap(({ id, kind }) => {
      const value = known[id] ?? (kind === 'text' ? words[next++ % words.length] : undefined);
      return value === undefined ? [] : [[id, value]];
    }),
  );
}
