import { MARKS, markOf, markValue } from '../piece';
import type { MarkId, Piece } from '../piece';

const bare = (name: string): string =>
  name
    .replace(/^.*[\\/]/, '')
    .replace(/\.\w{2,4}$/, '')
    .normalize('NFC')
    .toLowerCase()
    .trim();

/** What a cell of a picture or mark means: a mark by its label, a picture or film of the piece by its file's name, a logo's role. */
export function pictureNamed({ media, wardrobe }: Pick<Piece, 'media' | 'wardrobe'>): (cell: string) => string | null {
  const byName = new Map<string, string>();
  for (const [id, { label }] of Object.entries(MARKS)) byName.set(label.toLowerCase(), markValue(id as MarkId)); // keys of the table
  for (const role of Object.keys(wardrobe.logos)) byName.set(role.toLowerCase(), `@${role}`);
  for (const ref of media) if (ref.kind === 'picture' || ref.kind === 'footage') byName.set(bare(ref.name), ref.id);
  return (cell) => byName.get(bare(cell)) ?? null;
}

/** What a cell says to mean a picture or mark that a slot shows: the way back of {@link pictureNamed}. */
export function nameOfPicture(value: string, media: Piece['media']): string {
  const mark = markOf(value);
  return mark?.label ?? media.find((ref) => ref.id === value)?.name ?? value.replace(/^@/, '');
}
