export { PIECE_FILE_EXTENSION, readPieceFile, writePieceFile } from './piece-file';
export type { PieceFile, PieceFileProblem } from './piece-file';
export { MAX_CUES, readSubtitles, writeSrt, writeVtt } from './subtitles';
export type { Cue, ReadCues, SubtitleProblem } from './subtitles';
