import type { Format, Piece } from './schema';

/** The format of an id, or the piece's first where it has none of that id. */
export const formatOf = (piece: Piece, id: string): Format =>
  piece.formats.find((f) => f.id === id) ?? piece.formats[0]!; // the schema asks for at least one

/** The format in whose pixels everything is placed. */
export const leadFormat = (piece: Piece): Format => formatOf(piece, piece.leadFormatId);
