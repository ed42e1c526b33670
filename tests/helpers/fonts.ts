import { readFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import * as hb from 'harfbuzzjs';
import { createFontLibrary, fontManifestSchema } from '@core/text';
import type { FontLibrary, TextStyle } from '@core/text';

/** The shipped fonts, read from the built app. */
export function testFonts(): FontLibrary {
  const dir = 'dist/fonts';
  return createFontLibrary(
    hb,
    fontManifestSchema.parse(JSON.parse(readFileSync(join(dir, 'manifest.json'), 'utf8'))),
    (path) => readFile(join(dir, path)),
  );
}

/** Words as most tests of text set them. */
export const testTextStyle: TextStyle = {
  family: 'bricolage-grotesque',
  italic: false,
  weight: 600,
  tracking: 0,
  leading: 1.1,
  align: 'left',
  wrapWidth: null,
};
