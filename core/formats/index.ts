export { PIECE_FILE_EXTENSION, readPieceFile, writePieceFile } from './piece-file';
export type { PieceFile, PieceFileProblem } from './piece-file';
