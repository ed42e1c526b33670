import { familyLabel, shownLayers } from '../piece';
import type { Piece } from '../piece';
import { freeMoment } from '../time';
import { blankStretches } from './blank-check';
import { finding } from './finding';
import type { CheckContext, CheckRow, Finding } from './finding';
import { isOnBeat } from './land';
import { nothingLarge } from './large-check';
import { loopsThatJump } from './loop-check';
import { OPENING_SECONDS, emptyOpenings } from './opening-check';
import { checkReading } from './reading-check';
import type { ReadingFinding } from './reading-check';
import { soundLevels } from './sound-check';
import { misspelled } from './spelling-check';
import { slotsLeft, wordsWithoutRoom } from './slot-checks';
import { HIT_KINDS, visibleHits } from './visible-hits';
import { cutsBesideBeats, footageThatEnds, leftovers } from './span-checks';
import { coloursOutside, missingMedia } from './wardrobe-checks';
import { spelledTwoWays } from './word-checks';

const nameOf = (piece: Piece, id: string | null): string => piece.layers.find((l) => l.id === id)?.name ?? 'a layer';
const formatName = (piece: Piece, id: string): string => piece.formats.find((f) => f.id === id)?.name ?? id;
function reading({ piece, times, layoutText }: CheckContext, code: ReadingFinding['code']): Finding[] {
  return checkReading(piece, times, layoutText)
    .filter((found) => found.code === code)
    .map((found) => {
      switch (found.code) {
        case 'TOO_SHORT': {
          const [has, needs] = [found.has.toFixed(1), found.needs.toFixed(1)];
          const text = `${nameOf(piece, found.layerId)} is on screen for ${has} s and takes ${needs} s to read.`;
          return finding('warning', text, { layerId: found.layerId, wantedStay: found.needs });
        }
        case 'OUTSIDE': {
          const { layerId, formatId, at, isCut } = found;
          const format = formatName(piece, formatId);
          const text = `${nameOf(piece, layerId)} is ${isCut ? 'cut off' : 'outside the safe area'} in ${format}.`;
          return finding(isCut ? 'error' : 'warning', text, { layerId, formatId, at });
        }
        case 'TOO_SMALL': {
          const { layerId, formatId, at } = found;
          const text = `${nameOf(piece, layerId)} is too small to read in ${formatName(piece, formatId)}.`;
          return finding('warning', text, { layerId, formatId, at });
        }
        case 'NO_GLYPH': {
          const text = `No font has “${found.letters}”, used in ${nameOf(piece, found.layerId)}.`;
          return finding('error', text, { layerId: found.layerId });
        }
        case 'MANY_FAMILIES': {
          const families = found.families.map(familyLabel).join(', ');
          return finding('warning', `${found.families.length} typefaces: ${families}.`);
        }
      }
    });
}

/**
 * The run-through: every check is a row, and whatever can be told without painting is told by all hosts alike: the
 * panel, the painting worker and `./estrella check PIECE`.
 */
export const CHECKS = {
  pins: {
    label: 'Pins',
    run: ({ piece, times }) =>
      times.missing.map(({ layerId, where }) =>
        finding(
          'error',
          `The ${where}${layerId ? ` of ${nameOf(piece, layerId)}` : ''} is pinned to something that was removed; ` +
            'it keeps its last time.',
          { layerId },
        ),
      ),
  },
  seen: {
    label: 'Visible layers',
    run: ({ piece, times }) =>
      shownLayers(piece.layers).flatMap((layer) => {
        const [start, end] = [times.timeOf(layer.start), times.timeOf(layer.end)];
        const of = { layerId: layer.id };
        if (start >= times.end || end <= 0)
          return [finding('error', `${layer.name} is outside the piece and never visible.`, of)];
        if (end - start < piece.frameRate.den / piece.frameRate.num)
          return [finding('error', `${layer.name} is on screen for less than a frame.`, of)];
        return [];
      }),
  },
  opening: {
    label: 'Empty opening',
    run: ({ piece, times, layoutText }) =>
      (piece.layers.length === 0 ? [] : emptyOpenings(piece, times, layoutText)).map((formatId) =>
        finding('warning', `The first ${OPENING_SECONDS} s are empty in ${formatName(piece, formatId)}.`, {
          formatId,
          at: 0,
        }),
      ),
  },
  catch: { label: 'Strong opening', run: nothingLarge },
  blank: {
    label: 'Empty stretches',
    run: (context) =>
      blankStretches(context).map(({ from, to, isTail }) =>
        finding(
          'warning',
          isTail
            ? `The last ${(to - from).toFixed(1)} s are empty.`
            : `From ${from.toFixed(1)} to ${to.toFixed(1)} s the frame is empty.`,
          {
            at: from,
            fixes:
              isTail && from > 0
                ? [{ label: 'End piece there', edits: [{ type: 'piece.setEnd', end: freeMoment(from) }] }]
                : [],
          },
        ),
      ),
  },
  leftovers: { label: 'Layers after the end', run: leftovers },
  media: { label: 'Missing files', run: missingMedia },
  cuts: { label: 'Cuts off the beat', run: cutsBesideBeats },
  footage: { label: 'Clips that end early', run: footageThatEnds },
  colours: { label: 'Wardrobe colours', run: coloursOutside },
  spelling: { label: 'Spelling', run: misspelled },
  spellings: { label: 'Consistent spelling', run: spelledTwoWays },
  reading: { label: 'Reading time', run: (context) => reading(context, 'TOO_SHORT') },
  'safe-area': { label: 'Safe area', run: (context) => reading(context, 'OUTSIDE') },
  size: { label: 'Text size', run: (context) => reading(context, 'TOO_SMALL') },
  glyphs: { label: 'Missing glyphs', run: (context) => reading(context, 'NO_GLYPH') },
  room: { label: 'Text fit', run: wordsWithoutRoom },
  slots: { label: 'Empty slots', run: slotsLeft },
  sound: { label: 'Sound level', run: soundLevels },
  loops: { label: 'Loop seam', run: loopsThatJump },
  families: { label: 'Number of typefaces', run: (context) => reading(context, 'MANY_FAMILIES') },
  beat: {
    label: 'On the beat',
    run: ({ piece, times }) =>
      visibleHits(piece, times)
        .filter((hit) => !isOnBeat(hit))
        .map((hit) => {
          const way = hit.late > 0 ? 'late' : 'early';
          const off = `${Math.abs(hit.late * 1000).toFixed(0)} ms ${way}`;
          const text = `${nameOf(piece, hit.layerId)} ${HIT_KINDS[hit.kind]} ${off}.`;
          return finding('warning', text, { layerId: hit.layerId, at: hit.at });
        }),
  },
} as const satisfies Record<string, CheckRow>;
export type CheckId = keyof typeof CHECKS;
export const CHECK_IDS = Object.keys(CHECKS) as CheckId[]; // keys of a literal object

/** What all checks, or some of them, find, in the order of the table. */
export function runThrough(
  context: CheckContext,
  ids: readonly CheckId[] = CHECK_IDS,
): (Finding & { readonly check: CheckId })[] {
  return ids.flatMap((check) => CHECKS[check].run(context).map((found) => ({ ...found, check })));
}
