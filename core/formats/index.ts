export {
  MAX_DOCUMENT_BYTES,
  PIECE_FILE_EXTENSION,
  pieceFileEntry,
  readAnalysisEntry,
  readDocumentEntry,
} from './piece-file';
export type { PieceFileProblem } from './piece-file';
export { MAX_CUES, readSubtitles, writeSrt, writeVtt } from './subtitles';
export type { Cue, ReadCues, SubtitleProblem } from './subtitles';
export { EXPORT_FAMILIES, EXPORT_KINDS, EXPORT_KIND_IDS } from './export-kinds';
export type { ExportFamily, ExportKindId, ExportKindRow } from './export-kinds';
export { MAX_TOKENS_LENGTH, readTokens, writeTokens } from './design-tokens';
export type { Tokens, TokensProblem } from './design-tokens';
