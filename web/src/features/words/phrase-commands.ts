import { bestSplit, readingTime, splitPhrases } from '@core/text';
import {
  authorLayer,
  createLayer,
  layOnMusic,
  movedPhrase,
  newPhrases,
  phraseLayers,
  resolveTimes,
  stagePhrases,
} from '@core/piece';
import type { Edit, Laid, Piece, ResolvedTimes, Sheet, TextLayer } from '@core/piece';
import { beatMoment, beatToSeconds, freeMoment, secondsToBeat, shiftMoment } from '@core/time';
import type { Moment, Seconds } from '@core/time';
import { newId } from '../../platform/ids';
import { edit, openDocument, selectLayers, setView, useDesk } from '../../store/desk-store';
import { WORDS } from './words';

/**
 * What people do with phrases. Each is one undo step: the new layers are worked out on a copy of the document first.
 */
interface Work {
  readonly piece: Piece;
  readonly times: ResolvedTimes;
}

const again = (piece: Piece): Work => ({ piece, times: resolveTimes(piece, useDesk.getState().analysis) });

/** The stretch phrases are laid on: the marked one, or the piece. */
function range({ times }: Work): { from: Seconds; until: Seconds } {
  const { loop } = useDesk.getState();
  if (loop && loop.to - loop.from > 0.5) return { from: loop.from, until: Math.min(loop.to, times.end) };
  const first = beatToSeconds(times.grid, Math.ceil(secondsToBeat(times.grid, 0) - 1e-6));
  return { from: Math.max(0, Math.min(first, times.end / 4)), until: times.end };
}

const withLayers = (piece: Piece, layers: readonly TextLayer[], remove: readonly string[] = []): Piece => {
  const kept = piece.layers.filter((l) => !remove.includes(l.id)).map((l) => layers.find((n) => n.id === l.id) ?? l);
  return { ...piece, layers: [...kept, ...layers.filter((n) => !piece.layers.some((l) => l.id === n.id))] };
};

/** Phrases on their new spans, what is in them moved along. */
function spanned(work: Work, laid: Extract<Laid, { ok: true }>): TextLayer[] {
  return phraseLayers(work.piece, work.times).map((layer) => {
    const span = laid.spans.find((s) => s.id === layer.id);
    if (!span) return layer;
    const by = work.times.timeOf(span.start) - work.times.timeOf(layer.start);
    return movedPhrase(layer, span.start, span.end, (moment) => shiftMoment(moment, by, work.times.targets));
  });
}

/** The author's line stands from the last phrase to the end. */
function authorInTime(work: Work): TextLayer[] {
  const author = authorLayer(work.piece);
  const last = phraseLayers(work.piece, work.times).at(-1);
  if (!author || !last || author.content.phrase?.locked) return [];
  return [{ ...author, start: last.start, end: work.piece.end }];
}

const tooLong = (laid: Extract<Laid, { ok: false }>): string =>
  WORDS.tooMuchToRead(laid.needed.toFixed(1), Math.max(0, laid.available).toFixed(1), laid.wordsTooMany);

/** `isLaid`: the phrases are on the music, only closer than they can be read. */
export type LayOutcome =
  { readonly ok: true } | { readonly ok: false; readonly words: string; readonly isLaid: boolean };

/** Puts changed phrases into the document: laid anew if asked, always staged. */
function put(
  piece: Piece,
  remove: readonly string[],
  options: { lay: boolean; anyway?: boolean; sheet?: Sheet; gesture?: string | null },
): LayOutcome {
  const { analysis } = useDesk.getState();
  const sheet = options.sheet ?? piece.sheet;
  let work = again(piece);
  let outcome: LayOutcome = { ok: true };
  if (options.lay) {
    const { from, until } = range(work);
    let laid = layOnMusic(work.piece, work.times, analysis, {
      from,
      until,
      pace: sheet.pace,
      anyway: options.anyway ?? false,
    });
    if (!laid.ok) {
      outcome = { ok: false, words: tooLong(laid), isLaid: true };
      // Nothing is thrown away: the phrases get their share of what time there is, and it is said that it is too
      // little.
      laid = layOnMusic(work.piece, work.times, analysis, { from, until, pace: sheet.pace, anyway: true });
    }
    if (laid.ok) work = again(withLayers(work.piece, spanned(work, laid)));
  }
  work = again(withLayers(work.piece, authorInTime(work)));
  const layers = stagePhrases(work.piece, work.times, sheet, newId);
  const edits: Edit[] = [{ type: 'phrases.change', layers, remove: [...remove] }];
  if (options.sheet) edits.unshift({ type: 'sheet.set', sheet: options.sheet });
  edit(edits, options.gesture ?? null);
  return outcome;
}

/** Splits a quote into phrases in place of those there are, lays them on the music and stages them. */
export function pasteQuote(text: string, author: string): LayOutcome {
  const work = openDocument();
  if (!work) return { ok: true };
  const texts = splitPhrases(text.trim());
  if (texts.length === 0) return { ok: false, words: WORDS.thereAreNoWords, isLaid: false };
  const old = phraseLayers(work.piece, work.times)
    .filter((l) => !l.locked)
    .map((l) => l.id);
  const { from, until } = range(work);
  const made = newPhrases(texts, from, until, newId);
  const oldAuthor = authorLayer(work.piece);
  const remove = [...old, ...(oldAuthor ? [oldAuthor.id] : [])];
  if (author.trim())
    made.push(
      createLayer(
        'text',
        {
          name: author.trim().slice(0, 60),
          start: freeMoment(from),
          end: work.piece.end,
          content: {
            text: author.trim(),
            family: 'spline-sans',
            phrase: { role: 'author', locked: false, emphasis: [] },
          },
        },
        newId,
      ) as TextLayer,
    ); // of the kind asked for
  const outcome = put(withLayers(work.piece, made, remove), remove, { lay: true });
  setView({ notice: outcome.ok ? WORDS.phrasesLaidOnThe(texts.length) : null });
  return outcome;
}

export function layAgain(anyway: boolean): LayOutcome {
  const work = openDocument();
  return work ? put(work.piece, [], { lay: true, anyway }) : { ok: true };
}

export function setSheet(change: Partial<Sheet>, drag: string | null = null): LayOutcome {
  const work = openDocument();
  if (!work) return { ok: true };
  const sheet = { ...work.piece.sheet, ...change };
  // Another manner or pace gives phrases other times; a staging only another look.
  return put(work.piece, [], { lay: change.pace !== undefined || change.manner !== undefined, sheet, gesture: drag });
}

/** Parts a phrase at a gap (a character index), or at the best place. The time is shared by what there is to read. */
export function splitPhrase(id: string, at: number | null): void {
  const work = openDocument();
  const layer = work && phraseLayers(work.piece, work.times).find((l) => l.id === id);
  if (!work || !layer || layer.locked) return;
  const { text } = layer.content;
  const gap = at ?? bestSplit(text);
  const head = text.slice(0, gap ?? 0).trim();
  const tail = text.slice(gap ?? 0).trim();
  if (gap === null || !head || !tail) return;
  const { grid } = work.times;
  const [start, end] = [work.times.timeOf(layer.start), work.times.timeOf(layer.end)];
  const share = readingTime(head) / (readingTime(head) + readingTime(tail));
  const wanted = secondsToBeat(grid, start + (end - start) * share);
  const beat = [1, 0.5, 0.25]
    .map((step) => Math.round(wanted / step) * step)
    .find((b) => beatToSeconds(grid, b) > start + 0.1 && beatToSeconds(grid, b) < end - 0.1);
  const middle: Moment = beat === undefined ? freeMoment(start + (end - start) * share) : beatMoment(beat, grid);
  const words = head.split(/\s+/u).length;
  const tag = layer.content.phrase!; // it is a phrase
  const first: TextLayer = {
    ...layer,
    end: middle,
    name: head.slice(0, 60),
    content: { ...layer.content, text: head, phrase: { ...tag, emphasis: tag.emphasis.filter((w) => w < words) } },
  };
  const second: TextLayer = {
    ...layer,
    id: newId(),
    start: middle,
    name: tail.slice(0, 60),
    content: {
      ...layer.content,
      text: tail,
      phrase: { ...tag, emphasis: tag.emphasis.filter((w) => w >= words).map((w) => w - words) },
    },
  };
  const position = work.piece.layers.indexOf(layer);
  const layers = [...work.piece.layers];
  layers.splice(position, 1, first, second);
  put({ ...work.piece, layers }, [], { lay: false });
  selectLayers([second.id]);
}

/** Joins a phrase to the one before it. */
export function joinPhrase(id: string): void {
  const work = openDocument();
  if (!work) return;
  const phrases = phraseLayers(work.piece, work.times);
  const i = phrases.findIndex((l) => l.id === id);
  const [before, layer] = [phrases[i - 1], phrases[i]];
  if (!before || !layer || before.locked || layer.locked) return;
  const words = before.content.text.split(/\s+/u).length;
  const text = `${before.content.text} ${layer.content.text}`;
  const emphasis = [
    ...(before.content.phrase?.emphasis ?? []),
    ...(layer.content.phrase?.emphasis ?? []).map((w) => w + words),
  ];
  const joined: TextLayer = {
    ...before,
    end: layer.end,
    name: text.slice(0, 60),
    content: { ...before.content, text, phrase: { ...before.content.phrase!, emphasis } },
  }; // it is a phrase
  put(withLayers(work.piece, [joined], [layer.id]), [layer.id], { lay: false });
  selectLayers([before.id]);
}

/**
 * Puts a phrase before or behind others: the phrases then take the times there are in their new order, and are laid
 * anew. A locked one neither moves nor is passed, for its words belong to its time.
 */
export function movePhrase(id: string, to: number): void {
  const work = openDocument();
  if (!work) return;
  const phrases = phraseLayers(work.piece, work.times);
  const from = phrases.findIndex((l) => l.id === id);
  if (from < 0 || to < 0 || to >= phrases.length || from === to) return;
  const passed = phrases.slice(Math.min(from, to), Math.max(from, to) + 1);
  if (passed.some((l) => l.locked || l.content.phrase?.locked)) {
    setView({ notice: WORDS.lockedPhrasesStay });
    return;
  }
  const order = [...phrases];
  order.splice(to, 0, ...order.splice(from, 1));
  const moved = order.map((layer, i) => ({ ...layer, start: phrases[i]!.start, end: phrases[i]!.end })); // as many
  put(withLayers(work.piece, moved), [], { lay: true });
  selectLayers([id]);
}

export function setPhraseText(id: string, text: string, gesture: string): void {
  const work = openDocument();
  const layer = work?.piece.layers.find((l) => l.id === id);
  if (!layer) return;
  edit(
    [
      { type: 'layer.setContent', id, content: { text } },
      { type: 'layer.rename', id, name: text.slice(0, 60) },
    ],
    gesture,
  );
}

function retagged(
  id: string,
  change: (tag: NonNullable<TextLayer['content']['phrase']>) => NonNullable<TextLayer['content']['phrase']>,
): void {
  const work = openDocument();
  const layer = work && phraseLayers(work.piece, work.times).find((l) => l.id === id);
  if (!work || !layer?.content.phrase) return;
  put(withLayers(work.piece, [{ ...layer, content: { ...layer.content, phrase: change(layer.content.phrase) } }]), [], {
    lay: false,
  });
}

export const toggleEmphasis = (id: string, word: number): void =>
  retagged(id, (tag) => ({
    ...tag,
    emphasis: tag.emphasis.includes(word)
      ? tag.emphasis.filter((w) => w !== word)
      : [...tag.emphasis, word].sort((a, b) => a - b),
  }));
export const toggleLock = (id: string): void => retagged(id, (tag) => ({ ...tag, locked: !tag.locked }));

/** Moves the boundary behind a phrase: it ends there, and the next begins there if it stood right behind. */
export function moveBoundary(id: string, at: Moment, gesture: string): void {
  const work = openDocument();
  if (!work) return;
  const phrases = phraseLayers(work.piece, work.times);
  const i = phrases.findIndex((l) => l.id === id);
  const [layer, next] = [phrases[i], phrases[i + 1]];
  if (!layer) return;
  const seconds = work.times.timeOf(at);
  const limit = next ? work.times.timeOf(next.end) : work.times.end;
  if (seconds < work.times.timeOf(layer.start) + 0.1 || seconds > limit - (next ? 0.1 : 0)) return;
  const [ends, begins] = [work.times.timeOf(layer.end), next ? work.times.timeOf(next.start) : Infinity];
  const edits: Edit[] = [];
  // In a group that builds up, a phrase outlasts the beginning of the next: only that beginning moves.
  if (ends <= begins + 0.002) edits.push({ type: 'layer.setSpan', id, end: at });
  if (next && begins <= ends + 0.002) edits.push({ type: 'layer.setSpan', id: next.id, start: at });
  edit(edits, gesture);
}

/** How long a phrase stands by itself, and how long it takes to read. */
export function phraseTimes(work: Work, layer: TextLayer): { start: Seconds; has: Seconds; needs: Seconds } {
  const start = work.times.timeOf(layer.start);
  return {
    start,
    has: work.times.timeOf(layer.end) - start,
    needs: readingTime(layer.content.text, work.piece.sheet.pace),
  };
}
