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
export {
  DITHERS,
  EXPORT_SETTINGS,
  LOUDNESS_TARGETS,
  QUALITIES,
  USUAL_SETTINGS,
  exportSettingsSchema,
  kilobitsFor,
  settingsFor,
} from './export-settings';
export type { AskedSettings, Dither, ExportSettingId, ExportSettings, Quality } from './export-settings';
export { bytesByEarlier, estimatedBytes } from './estimated-bytes';
export type { MadeFile, RenderedSize } from './estimated-bytes';
export { EXPORT_PLACES, EXPORT_PLACE_IDS, againstPlace, fitsShape, settingsOfPlace } from './export-places';
export type { ExportPlaceId, ExportPlaceRow, OfferedFile } from './export-places';
export { timingSheet } from './timing-sheet';
export type { TimingSheet } from './timing-sheet';
export { writeMarkerCsv } from './marker-csv';
export { TICKS_PER_QUARTER, writeMidiTempo } from './midi-tempo';
export { PAGE_DATA_ID, PATH_ENGINE_ADDRESS, pageDataSchema } from './page-data';
export type { PageData } from './page-data';
export {
  DESTINATION_KINDS,
  MOST_TRIES,
  destinationSchema,
  receiptSchema,
  sendingSchema,
  waitBefore,
} from './destinations';
export type { Destination, DestinationKind, Receipt } from './destinations';
export { writeOtio } from './otio';
export { captionCues } from './caption-cues';
export { exportRefusal, exportWarning } from './export-refusal';
export {
  FRAMES_TAIL_BYTES,
  FRAME_SIZES,
  FRAME_TYPES,
  frameAddress,
  frameBytes,
  framesTail,
  indexLength,
  readFramesIndex,
} from './frames-file';
export type { FrameSize, FrameType, FramesIndex } from './frames-file';
