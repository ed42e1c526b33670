export {
  BLEND_MODES,
  BLEND_MODE_IDS,
  GRADIENTS,
  LAYER_KINDS,
  PICTURE_FITS,
  LAYER_KIND_IDS,
  kindProperties,
} from './document/layer-kinds';
export type { BlendMode, LayerKind } from './document/layer-kinds';
export {
  CAPS,
  GRADIENT_SHAPES,
  JOINS,
  MAX_STOPS,
  ROUND_STROKE,
  SPREADS,
  STROKE_POSITIONS,
  newGradient,
  strokeReach,
} from './document/paint-schema';
export { contentBox } from './document/group-box';
export type { FillRule, Gradient, Paint, ShapeContent, StrokeStyle } from './document/paint-schema';
export { PROPERTIES, PROPERTY_IDS, clampValue, isValueOf, propertyDefinition } from './document/properties';
export type { PropertyDefinition, PropertyId, ValueKind } from './document/properties';
export { FADE_CURVES } from './document/song-schema';
export {
  MAX_FRAME_SIDE,
  MAX_LAYERS,
  MAX_PIECE_SECONDS,
  MIN_FRAME_SIDE,
  PIECE_VERSION,
  formatSchema,
  pieceSchema,
} from './document/schema';
export { visitLayerMoments } from './document/layer-moments';
export { completePiece, parsePiece } from './document/parse-piece';
export { KEPT_KINDS, MOST_KEPT, keptNameSchema, keptSchema, keptWardrobeSchema } from './document/kept';
export type { KeptKind, KeptWardrobe } from './document/kept';
export {
  MAX_WITHIN,
  WITHIN_HEAD,
  combinesShapes,
  depthWithin,
  loadWithin,
  piecesDrawn,
  piecesWithin,
  readWithin,
  withinOf,
  writeWithin,
} from './document/within';
export type { PieceWithin } from './document/within';
export { MAX_FOOTAGE_FRAMES, fontRefSchema, mediaRefSchema } from './document/media-schema';
export type { FadeCurve, GridCorrection, Music, SongCut, TypedTempo } from './document/song-schema';
export {
  HELD_WITHIN,
  HOLDS_ACROSS,
  HOLDS_DOWN,
  HUG_AXES,
  LISTEN_SOURCES,
  REPEAT_WAYS,
  SCALES_BY,
} from './document/composition-schema';
export type {
  Constraints,
  Effect,
  Follow,
  GuideLine,
  Hug,
  Listen,
  ListenSource,
  Mask,
  Repeat,
} from './document/composition-schema';
export { HEARD_RATE, heardIn } from './times/heard';
export type { Heard } from './times/heard';
export { MEDIA_KINDS, MEDIA_KIND_IDS } from './document/media-kinds';
export type { MediaKindFacts, MediaKindId, MediaVariant } from './document/media-kinds';
export { footageOf, footageSeconds, footageSpeed } from './document/footage-of';
export { cutEdits } from './edits/cut-layers';
export { trimEdit } from './edits/trim-edit';
export { fitSong, uncut } from './song/fit-song';
export type { SongFit } from './song/fit-song';
export type { FontRef, FootageRef, MediaRef } from './document/media-schema';
export type { Format, Marker, Piece } from './document/schema';
export type { FormatOverride, GroupLayer, Layer, LayerFor, LayerOf, TextLayer } from './document/layer-schema';
export type { PieceProblem } from './document/parse-piece';
export {
  DESTINATIONS,
  NEW_BACKGROUND,
  NO_CORRECTION,
  constantTrack,
  createLayer,
  createMusic,
  createPiece,
  NEW_PIECE_SECONDS,
} from './document/create';
export type { DestinationId, IdSource, NewLayer, NewPiece } from './document/create';
export { musicGrid, pieceGrid } from './song/music-grid';
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
} from './song/song-parts';
export type { SongPart } from './song/song-parts';
export {
  heardParts,
  joinCorrelation,
  joinGain,
  lastHeard,
  mixSong,
  musicLevel,
  neededOfSong,
  partGain,
} from './song/mix-song';
export type { HeardPart, SongSamples } from './song/mix-song';
export { MAX_VOLUME } from './document/song-schema';
export { musicSpan, rearranged, withRepeat, withoutStretch } from './song/arrange';
export type { Stretch } from './song/arrange';
export { compareHearing } from './song/compare-hearing';
export type { HearingComparison, MovedMoment } from './song/compare-hearing';
export { followHits } from './song/grid-corrections';
export { onlyLayers } from './document/only-layers';
export { openingSeconds, posterFrame, posterSeconds } from './times/poster-seconds';
export { markerExcerpts, sectionExcerpts, spanOf, withinExcerpt } from './times/excerpts';
export type { Excerpt, FrameSpan, NamedExcerpt } from './times/excerpts';
export { layersEnd, musicEnd } from './times/natural-ends';
export { listMoments, rememberTimes, resolveTimes, visitMoments } from './times/resolve-times';
export type { MissingPin, ResolvedTimes } from './times/resolve-times';
export { EDITS, applyEdits } from './edits';
export type { Edit, EditResult, EditType } from './edits';
export type { KeyRef } from './edits/key-edits';
export { keepsTimes } from './edits/patch-kinds';
export { EMPTY_HISTORY, compacted, patched, recordStep, redo, undo } from './edits/history';
export type { History, HistoryStep, Patches } from './edits/history';
export { coversFrame, fitIn, groupMatrix, layerMatrix, outerMatrix, pivotOf, positionAt } from './document/place';
export { safeBox, safeMargins } from './document/safe-area';
export type { Fit, PlaceReader } from './document/place';
export { allTracks, hasProperty, ownTrack, trackOf } from './document/tracks';
export {
  ancestorsOf,
  byId,
  childrenByParent,
  inTreeOrder,
  outermost,
  shownLayers,
  withDescendants,
} from './document/tree';
export { colourOf, familyOf, isRole, worn, wornPiece } from './document/worn';
export { literalColours, nearestRoles } from './document/recolour';
export { EMPTY_WARDROBE, MOST_ROLES, roleName } from './document/wardrobe-schema';
export type { Wardrobe } from './document/wardrobe-schema';
export { EFFECT_KINDS, effectParameters, isEffectColour } from './document/effect-kinds';
export type { EffectKind, EffectParameter } from './document/effect-kinds';
export { MAX_SLOTS, SLOT_KINDS, STRETCHES, TEMPLATE_USES } from './document/template-schema';
export type { MadeFrom, Slot, SlotKind, SlotTiming, Template, TemplateUse } from './document/template-schema';
export { holds, isAhead, saveName } from './document/save-ids';
export { copyLayers } from './document/copy-layers';
export { SPREAD_KINDS, SPREAD_ORDERS, spreadOrder, spreadTargets } from './times/spread';
export type { SpreadKind, SpreadOrder, SpreadPlan } from './times/spread';
export { FEWEST_TAPS, beatsFromTaps } from './song/taps';
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
  BREAKS,
  ROOM_WAYS,
  areaForSense,
  wordRanges,
} from './document/text-content';
export type {
  Dress,
  LetterCase,
  PhraseTag,
  RoomWay,
  TextAlong,
  TextArea,
  TextRoom,
  TextSpan,
} from './document/text-content';
export { familyLabel, loadTexts, ownFamilyId, ownFamilyName, ownFontFile, withPieceFonts } from './words/text-needs';
export { STARTER_STYLES } from './document/starter-styles';
export { lookOf, newLook, sameLook } from './document/text-styles';
export type { SavedStyle, TextLook } from './document/text-styles';
export { formatOf, leadFormat } from './document/lead-format';
export { plainCopy } from './document/plain-copy';
export { DEFAULT_SHEET, MANNERS, STAGING_IDS, STAGING_LABELS } from './document/sheet';
export type { Manner, Sheet, StagingId } from './document/sheet';
export { layPhrases, phraseCost, gapCost } from './words/lay-phrases';
export type { PhraseNeed, Place, Stretched } from './words/lay-phrases';
export {
  authorLayer,
  captionLayers,
  layOnMusic,
  newPhrases,
  phraseLayers,
  withoutCaptions,
} from './words/phrase-sheet';
export type { Laid, LayPlan } from './words/phrase-sheet';
export { movedPhrase, stagePhrases } from './words/stagings';
export { emOfSides, gestureFromKeys, openUp, tracksOf } from './times/own-gestures';
export { creditLayers, creditRows, readCredits, rollCredits, rollMotion, writeCredits } from './words/credits';
export type { CreditRow, RollPlan } from './words/credits';
export { copiedFrom, copiedSchema, pastedInto, forgetOthers } from './document/copied-layers';
export type { Copied } from './document/copied-layers';
export { mediaIdOf } from './document/media-of';
export { lookEdits } from './edits/look-edits';
export { colourBetween, gradientPoints, widestGap, withPoint, withStop } from './document/gradients';
export type { GradientPoints } from './document/gradients';
export { MASK_VALUE_IDS, maskValue } from './document/mask-values';
export type { MaskValue, MaskValueId } from './document/mask-values';
export {
  animatedTracks,
  canListen,
  effectParameterOf,
  effectTrackId,
  heldTrack,
  isPropertyId,
  keyframeOf,
  maskTrackId,
  takesKeyframes,
  partsOf,
  trackIdSchema,
  trackLabel,
} from './document/track-ids';
export type { TrackId } from './document/track-ids';
export { findKey } from './edits/find-key';
export { NEW_GROUP_TIME } from './document/group-time';
export type { GroupTime } from './document/group-time';
export { MARKS, MARK_BOX, markOf, markValue } from './templates/marks';
export type { MarkId } from './templates/marks';
export { fillSlots } from './templates/fill';
export { filledValues, groupOfSlot, isFilled, slotValues } from './templates/slot-values';
export { endFor, holdOf } from './templates/hold';
export { mirrored } from './templates/mirrored';
export { putIn } from './templates/put-in';
export type { PutIn } from './templates/put-in';
export { slotsOf, templateOf } from './templates/template-of';
export { layersForLead, nearestFormat } from './templates/for-lead';
export { NO_DIFFERENCE, isNoDifference } from './document/overrides';
export { analysisVersionSchema } from './document/song-schema';
export { mediaFor, songOf, timedBy } from './document/media-of';
export type { Timing } from './document/media-of';
export { prepareTemplate, templateAlone } from './templates/alone';
export type { Surroundings } from './templates/alone';
