// Writes tests/data/shaping.json: what HarfBuzz's own command hb-shape (Debian: libharfbuzz-bin) makes of words in the
// shipped fonts. Only needed when a font changes: node scripts/shaping-expectations.mjs
import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const manifest = JSON.parse(readFileSync('dist/fonts/manifest.json', 'utf8'));
const covers = (file, point) =>
  file.ranges.some((from, i) => i % 2 === 0 && point >= from && point <= file.ranges[i + 1]);

/** [family, script, words, features, setting] */
const CASES = [
  [
    'bricolage-grotesque',
    'Latin',
    ['Nine days of wind', 'AVATAR Type WAVE', 'office affluent fjord', 'L’été à Zürich', 'naïve coöperation'],
  ],
  [
    'literata',
    'Latin',
    ['Official flight', 'fi ffi fl ffl', 'To. Ty, Wa'],
    ['liga=0', 'kern=0', 'onum', 'smcp', 'c2sc', 'lnum', 'tnum', 'frac'],
  ],
  [
    'fraunces',
    'Latin',
    ['kite maker 1234567890', 'final ﬁ effort'],
    ['ss01', 'onum', 'liga=0'],
    [{ weight: 300 }, { weight: 800, opsz: 144 }],
  ],
  ['recursive', 'Latin', ['night pilot'], [], [{ weight: 300 }, { weight: 900, slnt: -12 }]],
  [
    'noto-sans-arabic',
    'Arabic',
    ['أسبوع الطائرات الورقية', 'لا إله', 'مَرْحَبًا', 'في الميناء', 'الله', 'بِسْمِ'],
    ['liga=0', 'rlig=0'],
    [{ weight: 400 }, { weight: 700, wdth: 80 }],
  ],
  [
    'noto-sans-hebrew',
    'Hebrew',
    ['שבוע עפיפונים', 'שָׁלוֹם', 'בַּיִת', 'רוּחַ', 'לֻחַ', 'שׂ שׁ'],
    [],
    [{ weight: 400 }, { weight: 800 }],
  ],
  [
    'noto-sans-devanagari',
    'Devanagari',
    ['पतंग सप्ताह', 'क्षत्रिय', 'हिन्दी', 'श्री', 'र्क', 'कि', 'त्र', 'द्ध', 'ड़', 'विद्यार्थी'],
    [],
    [{ weight: 400 }, { weight: 700 }],
  ],
  ['noto-sans-jp', 'Japanese', ['風', '九日', 'の', 'カイト'], ['vert', 'palt'], [{ weight: 400 }, { weight: 800 }]],
];

const out = [];
for (const [family, script, texts, features = [], settings = [{ weight: 400 }]] of CASES) {
  for (const text of texts) {
    const points = [...text].map((c) => c.codePointAt(0));
    const file = manifest.files.find(
      (f) => f.family === family && !f.italic && points.every((p) => p === 32 || covers(f, p)),
    );
    if (!file) {
      console.error(`no single file of ${family} has “${text}”`);
      continue;
    }
    for (const setting of settings)
      for (const feature of ['', ...features]) {
        const { weight, ...axes } = setting;
        const args = [
          `--font-file=${join('dist/fonts', file.path)}`,
          '--output-format=json',
          '--no-glyph-names',
          `--direction=${/Arabic|Hebrew/.test(script) ? 'rtl' : 'ltr'}`,
        ];
        // A font's axes that nothing is said about stay at its own values.
        args.push(
          `--variations=${Object.entries({ wght: weight, ...axes })
            .map(([tag, value]) => `${tag}=${value}`)
            .join()}`,
        );
        if (feature) args.push(`--features=${feature}`);
        const glyphs = JSON.parse(execFileSync('hb-shape', [...args, `--text=${text}`], { encoding: 'utf8' }));
        out.push({
          script,
          family,
          path: file.path,
          text,
          feature,
          weight,
          axes,
          glyphs: glyphs.map((g) => [g.g, g.cl, g.ax, g.dx, g.dy]),
        });
      }
  }
}
const version = execFileSync('hb-shape', ['--version'], { encoding: 'utf8' }).split('\n')[0];
writeFileSync(
  'tests/data/shaping.json',
  `{"from":${JSON.stringify(version)},"cases":[\n${out.map((c) => JSON.stringify(c)).join(',\n')}\n]}\n`,
);
console.log(`${out.length} expectations`);
