import { familyLabel, shownLayers } from '../piece';
import type { Piece, ResolvedTimes } from '../piece';
import type { LayoutText } from '../scene';
import type { Seconds } from '../time';
import { isOnBeat } from './land';
import { OPENING_SECONDS, emptyOpenings } from './opening-check';
import { checkReading } from './reading-check';
import type { ReadingFinding } from './reading-check';
import { HIT_KINDS, visibleHits } from './visible-hits';

/**
 * The run-through: every check is a row, and whatever can be told without painting is told by all hosts alike: the
 * panel, the painting worker and `./estrella check PIECE`.
 */
export interface CheckContext {
  readonly piece: Piece;
  readonly times: ResolvedTimes;
  readonly layoutText: LayoutText;
}

/** `error`: what is rendered is not what was meant. `warning`: it is, and may not be liked. */
export type Severity = 'error' | 'warning';

export interface Finding {
  readonly severity: Severity;
  /** For people, a sentence. */
  readonly text: string;
  readonly layerId: string | null;
  readonly formatId: string | null;
  /** Seconds of the piece at which it is seen; null if it is not at one moment. */
  readonly at: Seconds | null;
  /** How long the layer would have to stay for it to be well, seconds; null if that is not the matter. */
  readonly wantedStay: Seconds | null;
}

export interface CheckRow {
  readonly label: string;
  readonly run: (context: CheckContext) => readonly Finding[];
}

const nameOf = (piece: Piece, id: string | null): string => piece.layers.find((l) => l.id === id)?.name ?? 'a layer';
const formatName = (piece: Piece, id: string): string => piece.formats.find((f) => f.id === id)?.name ?? id;
const finding = (severity: Severity, text: string, more: Partial<Finding> = {}): Finding => ({
  severity,
  text,
  layerId: null,
  formatId: null,
  at: null,
  wantedStay: null,
  ...more,
});

function reading({ piece, times, layoutText }: CheckContext, code: ReadingFinding['code']): Finding[] {
  return checkReading(piece, times, layoutText)
    .filter((found) => found.code === code)
    .map((found) => {
      switch (found.code) {
        case 'TOO_SHORT': {
          const [has, needs] = [found.has.toFixed(1), found.needs.toFixed(1)];
          const text = `${nameOf(piece, found.layerId)} is shown for ${has} s and takes ${needs} s to read.`;
          return finding('warning', text, { layerId: found.layerId, wantedStay: found.needs });
        }
        case 'OUTSIDE': {
          const { layerId, formatId, at, isCut } = found;
          const format = formatName(piece, formatId);
          const text = `${nameOf(piece, layerId)} is ${isCut ? 'cut off' : 'outside the safe area'} in ${format}.`;
          return finding(isCut ? 'error' : 'warning', text, { layerId, formatId, at });
        }
        case 'MANY_FAMILIES': {
          const families = found.families.map(familyLabel).join(', ');
          return finding('warning', `${found.families.length} families of type: ${families}.`);
        }
      }
    });
}

export const CHECKS = {
  pins: {
    label: 'Every pin holds',
    run: ({ piece, times }) =>
      times.missing.map(({ layerId, where }) =>
        finding(
          'error',
          `The ${where}${layerId ? ` of ${nameOf(piece, layerId)}` : ''} is pinned to something that is gone; ` +
            'it stays at its last time.',
          { layerId },
        ),
      ),
  },
  seen: {
    label: 'Every layer is seen',
    run: ({ piece, times }) =>
      shownLayers(piece.layers).flatMap((layer) => {
        const [start, end] = [times.timeOf(layer.start), times.timeOf(layer.end)];
        const of = { layerId: layer.id };
        if (start >= times.end || end <= 0)
          return [finding('error', `${layer.name} lies outside the piece and is never seen.`, of)];
        if (end - start < piece.frameRate.den / piece.frameRate.num)
          return [finding('error', `${layer.name} is shown for less than a frame.`, of)];
        return [];
      }),
  },
  opening: {
    label: 'The opening shows something',
    run: ({ piece, times, layoutText }) =>
      (piece.layers.length === 0 ? [] : emptyOpenings(piece, times, layoutText)).map((formatId) =>
        finding('warning', `The first ${OPENING_SECONDS} s show nothing in ${formatName(piece, formatId)}.`, {
          formatId,
          at: 0,
        }),
      ),
  },
  reading: { label: 'Time to read', run: (context) => reading(context, 'TOO_SHORT') },
  'safe-area': { label: 'Within the safe area', run: (context) => reading(context, 'OUTSIDE') },
  families: { label: 'Few families of type', run: (context) => reading(context, 'MANY_FAMILIES') },
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
