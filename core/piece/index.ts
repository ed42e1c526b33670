export { BLEND_MODES, BLEND_MODE_IDS, GRADIENTS, LAYER_KINDS, LAYER_KIND_IDS, kindProperties } from './layer-kinds';
export type { BlendMode, LayerKind } from './layer-kinds';
export { PROPERTIES, PROPERTY_IDS, clampValue, isValueOf, propertyDefinition } from './properties';
export type { PropertyDefinition, PropertyId, ValueKind } from './properties';
export {
  FADE_CURVES,
  MAX_FRAME_SIDE,
  MAX_LAYERS,
  MAX_PIECE_SECONDS,
  MIN_FRAME_SIDE,
  PIECE_VERSION,
  completePiece,
  fontRefSchema,
  formatSchema,
  mediaRefSchema,
  parsePiece,
  pieceSchema,
} from './schema';
export type {
  FadeCurve,
  FontRef,
  Format,
  FormatOverride,
  GridCorrection,
  Layer,
  Marker,
  MediaRef,
  Music,
  Piece,
  PieceProblem,
  SongCut,
  TextLayer,
  TypedTempo,
} from './schema';
export { DESTINATIONS, NO_CORRECTION, constantTrack, createLayer, createMusic, createPiece } from './create';
export type { DestinationId, IdSource, NewLayer, NewPiece } from './create';
export { musicGrid, pieceGrid } from './music-grid';
export {
  JOIN_SECONDS,
  fadeGain,
  heardTimes,
  pieceToSong,
  playedLength,
  songParts,
  songTime,
  songToPiece,
  songToPieceAll,
  splitParts,
} from './song-parts';
export type { SongPart } from './song-parts';
export {
  heardParts,
  joinCorrelation,
  joinGain,
  lastHeard,
  mixSong,
  musicGain,
  neededOfSong,
  partGain,
} from './mix-song';
export type { HeardPart, SongSamples } from './mix-song';
export { musicSpan, rearranged, withRepeat, withoutStretch } from './arrange';
export type { Stretch } from './arrange';
export { followHits } from './grid-corrections';
export { listMoments, rememberTimes, resolveTimes, visitMoments } from './resolve-times';
export type { MissingPin, ResolvedTimes } from './resolve-times';
export { EDITS, applyEdits } from './edits';
export type { Edit, EditResult, EditType } from './edits';
export type { KeyRef } from './edits/key-edits';
export { EMPTY_HISTORY, recordStep, redo, undo } from './history';
export type { History, HistoryStep } from './history';
export { holds, isAhead, saveName } from './save-ids';
export { copyLayers } from './copy-layers';
export { SPREAD_KINDS, SPREAD_ORDERS, spreadOrder, spreadTargets } from './spread';
export type { SpreadKind, SpreadOrder, SpreadPlan } from './spread';
export { FEWEST_TAPS, beatsFromTaps } from './taps';
export {
  ALONG_SHAPES,
  BAND_KINDS,
  LETTER_CASES,
  NO_DRESS,
  RULE_KINDS,
  dressSchema,
  followText,
  inCase,
  smallCapitals,
  wordRanges,
} from './text-content';
export type { Dress, LetterCase, PhraseTag, TextAlong, TextArea, TextSpan } from './text-content';
export { familyLabel, loadTexts, ownFamilyId, ownFamilyName, ownFontFile, withPieceFonts } from './text-needs';
export { STARTER_STYLES } from './starter-styles';
export { lookOf, newLook, sameLook } from './text-styles';
export type { SavedStyle, TextLook } from './text-styles';
export { formatOf, leadFormat } from './lead-format';
export { plainCopy } from './plain-copy';
export { DEFAULT_SHEET, MANNERS, STAGING_IDS, STAGING_LABELS } from './sheet';
export type { Manner, Sheet, StagingId } from './sheet';
export { layPhrases, phraseCost, gapCost } from './lay-phrases';
export type { PhraseNeed, Place, Stretched } from './lay-phrases';
export { authorLayer, captionLayers, layOnMusic, newPhrases, phraseLayers } from './phrase-sheet';
export type { Laid, LayPlan } from './phrase-sheet';
export { movedPhrase, stagePhrases } from './stagings';
export { emOfSides, gestureFromKeys, openUp, tracksOf } from './own-gestures';
export { creditLayers, creditRows, readCredits, rollCredits, rollMotion, writeCredits } from './credits';
export type { CreditRow, RollPlan } from './credits';
