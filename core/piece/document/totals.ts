/**
 * What a piece may hold in all. Each list has a bound of its own in the schema; these bound what many full lists add up
 * to, so that reading, saving and painting stay quick. Counted on raw JSON, before anything is validated: counting
 * costs little, validating a document of a million keyframes seconds.
 */
export const TOTALS = {
  keyframes: { most: 20_000, label: 'keyframes' },
  gestures: { most: 4000, label: 'gestures' },
  letters: { most: 400_000, label: 'letters of text' },
  pathData: { most: 4_000_000, label: 'characters of drawn paths' },
  glyphRanges: { most: 400_000, label: 'letter ranges of fonts' },
} as const;
export type TotalId = keyof typeof TOTALS;

type Json = Readonly<Record<string, unknown>>;
const objectOf = (value: unknown): Json => (typeof value === 'object' && value !== null ? (value as Json) : {});
const listOf = (value: unknown): readonly unknown[] => (Array.isArray(value) ? value : []);
const textLength = (value: unknown): number => (typeof value === 'string' ? value.length : 0);

function countTracks(tracks: unknown): number {
  let count = 0;
  for (const track of Object.values(objectOf(tracks))) count += listOf(objectOf(track).keyframes).length;
  return count;
}

function countGestures(gestures: unknown, totals: Record<TotalId, number>): void {
  for (const gesture of listOf(gestures)) {
    totals.gestures++;
    totals.keyframes += countTracks(objectOf(gesture).tracks);
  }
}

/** Counts what stands in a document, valid or not. */
export function countTotals(piece: unknown): Record<TotalId, number> {
  const totals: Record<TotalId, number> = { keyframes: 0, gestures: 0, letters: 0, pathData: 0, glyphRanges: 0 };
  const document = objectOf(piece);
  totals.keyframes += countTracks({ background: document.background, volume: objectOf(document.music).volume });
  for (const sound of listOf(document.sounds))
    totals.keyframes += countTracks({ volume: objectOf(sound).volume, pan: objectOf(sound).pan });
  countGestures(document.gestures, totals);
  for (const entry of listOf(document.layers)) {
    const layer = objectOf(entry);
    const content = objectOf(layer.content);
    totals.keyframes += countTracks(layer.tracks);
    for (const override of Object.values(objectOf(layer.overrides)))
      totals.keyframes += countTracks(objectOf(override).tracks) + countTracks(objectOf(override).parts);
    for (const effect of listOf(layer.effects)) totals.keyframes += countTracks(objectOf(effect).parameters);
    for (const mask of listOf(layer.masks)) {
      totals.keyframes += countTracks(objectOf(mask).tracks);
      totals.pathData += textLength(objectOf(mask).d);
    }
    countGestures(layer.gestures, totals);
    totals.letters += textLength(content.text);
    totals.pathData += textLength(content.d) + textLength(objectOf(content.along).d);
  }
  for (const media of listOf(document.media))
    totals.glyphRanges += listOf(objectOf(objectOf(media).font).ranges).length;
  return totals;
}

/** The first total that is exceeded, in words; null if all are kept. */
export function exceededTotal(piece: unknown): string | null {
  const totals = countTotals(piece);
  for (const id of Object.keys(TOTALS) as TotalId[])
    if (totals[id] > TOTALS[id].most)
      return `a piece holds at most ${TOTALS[id].most.toLocaleString('en')} ${TOTALS[id].label}`;
  return null;
}
