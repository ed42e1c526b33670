import { FONT_FAMILIES } from '../../text';
import type { FontFamilyId, FontLibrary, OwnFontFile } from '../../text';
import type { MediaRef } from '../document/media-schema';
import type { Piece } from '../document/schema';
import { inCase } from '../document/text-content';
import { wornPiece } from '../document/worn';

interface TextNeed {
  readonly family: string;
  readonly italic: boolean;
  readonly text: string;
}

/** Every face a piece writes with and what is written in it. */
function textNeeds(piece: Piece): TextNeed[] {
  return wornPiece(piece).layers.flatMap((layer): TextNeed[] => {
    if (layer.kind !== 'text') return [];
    const { family, italic, spans, letterCase } = layer.content;
    // Numbers that count pass through every digit.
    const text = inCase(layer.content.text, letterCase) + (layer.gestures.length > 0 ? '0123456789' : '');
    return [
      { family, italic, text },
      ...spans
        .filter((s) => s.family !== undefined || s.italic !== undefined)
        .map((s) => ({ family: s.family ?? family, italic: s.italic ?? italic, text: text.slice(s.start, s.end) })),
    ];
  });
}

/** Family ids of fonts that were brought in; those that ship have ids without it. */
const OWN = 'own:';
export const ownFamilyId = (family: string): string => `${OWN}${family}`;
/** The name of a family that was brought in; null for one that ships. */
export const ownFamilyName = (id: string): string | null => (id.startsWith(OWN) ? id.slice(OWN.length) : null);

/** What people call a family. */
// an unknown family shows by its id
export const familyLabel = (id: string): string => ownFamilyName(id) ?? FONT_FAMILIES[id as FontFamilyId]?.label ?? id;

/** Path of a brought-in font in the library: its content hash. */
const OWN_PATH = 'own/';

export function ownFontFile({ hash, font }: MediaRef): OwnFontFile | null {
  return font
    ? {
        path: `${OWN_PATH}${hash}`,
        family: ownFamilyId(font.family),
        italic: font.italic,
        weights: font.weights,
        ranges: font.ranges,
        axes: font.axes,
      }
    : null;
}

/** The library with the fonts a piece brings. @param read - the bytes of a font by content hash. */
export function withPieceFonts(
  piece: Pick<Piece, 'media'>,
  fonts: FontLibrary,
  read: (hash: string) => Promise<Uint8Array>,
): FontLibrary {
  const files = piece.media.map(ownFontFile).filter((file) => file !== null);
  return files.length === 0 ? fonts : fonts.withFiles(files, (path) => read(path.slice(OWN_PATH.length)));
}

/** Loads what a piece writes with, before a host lays its text out. Rejects if a font cannot be read. */
export async function loadTexts(piece: Piece, fonts: FontLibrary): Promise<void> {
  await Promise.all(textNeeds(piece).map((need) => fonts.load(need.family, need.italic, need.text)));
}
