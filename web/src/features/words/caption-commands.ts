import { captionCues, readSubtitles, writeSrt, writeVtt } from '@core/formats';
import type { Cue } from '@core/formats';
import { newGestureUse } from '@core/motion';
import {
  MAX_LAYERS,
  NO_DRESS,
  areaForSense,
  captionLayers,
  createLayer,
  leadFormat,
  plainCopy,
  trackOf,
  ownTrack,
} from '@core/piece';
import type { Edit, Piece, ResolvedTimes, TextArea, TextLayer } from '@core/piece';
import { readingTime } from '@core/text';
import { freeMoment } from '@core/time';
import type { Moment } from '@core/time';
import { newId } from '../../platform/ids';
import { playhead } from '../../platform/clock';
import { edit, openDocument, selectLayers, setView } from '../../store/desk-store';
import { momentAtPlayhead } from '../desk/commands';
import { WORDS } from './words';

/** What all captions of a piece have in common; read from the first of them. */
export interface CaptionStyle {
  readonly family: string;
  /** Of the frame's shorter side. */
  readonly sizeShare: number;
  readonly colour: string;
  readonly place: keyof typeof PLACES;
  readonly hasBand: boolean;
  /** Word by word in this colour as it is said; null for none. */
  readonly highlight: string | null;
}

export const PLACES = { bottom: WORDS.atTheBottom, middle: WORDS.inTheMiddle, top: WORDS.atTheTop } as const;
const AREAS: Record<keyof typeof PLACES, TextArea> = {
  bottom: areaForSense({ x: 0.1, y: 0.74, width: 0.8, height: 0.18, valign: 'bottom' }),
  middle: areaForSense({ x: 0.1, y: 0.4, width: 0.8, height: 0.2, valign: 'middle' }),
  top: areaForSense({ x: 0.1, y: 0.08, width: 0.8, height: 0.18, valign: 'top' }),
};
const FIRST_STYLE: CaptionStyle = {
  family: 'spline-sans',
  sizeShare: 1 / 18,
  colour: '#FFFFFF',
  place: 'bottom',
  hasBand: true,
  highlight: null,
};
const BAND = { per: 'line', colour: '#11151BE0', padX: 0.25, padY: 0.28, radius: 0.12 } as const;

const shorter = (piece: Piece): number => {
  const lead = leadFormat(piece);
  return Math.min(lead.width, lead.height);
};

export function captionStyle(piece: Piece, times: ResolvedTimes): CaptionStyle {
  const [first] = captionLayers(piece, times);
  if (!first) return FIRST_STYLE;
  const { content } = first;
  const place =
    // keys of the table
    (Object.keys(AREAS) as (keyof typeof AREAS)[]).find((id) => AREAS[id].y === content.area?.y) ?? 'bottom';
  return {
    family: content.family,
    sizeShare: Number(trackOf(first, 'size')?.value ?? 60) / shorter(piece),
    colour: String(trackOf(first, 'fill')?.value ?? FIRST_STYLE.colour),
    place,
    hasBand: content.dress.band !== null,
    highlight: first.gestures.find((g) => g.gesture === 'aurora')?.colour ?? null,
  };
}

/** A caption in a style: it keeps its words and its time. */
function styled(layer: TextLayer, style: CaptionStyle, piece: Piece): TextLayer {
  const next = plainCopy(layer);
  next.content = {
    ...next.content,
    family: style.family,
    align: 'center',
    area: AREAS[style.place],
    wrapWidth: null,
    dress: style.hasBand
      ? { ...NO_DRESS, band: BAND }
      : { ...NO_DRESS, shadow: { colour: '#000000C0', x: 0, y: 0.04, blur: 0.08 } },
  };
  for (const [property, value] of [
    ['size', Math.round(style.sizeShare * shorter(piece))],
    ['weight', 600],
    ['fill', style.colour],
    ['leading', 1.32],
  ] as const)
    ownTrack(next, property).value = value;
  // Each word lights up while it is said: the words share the caption's time evenly.
  next.gestures = style.highlight
    ? [
        {
          ...newGestureUse('aurora', 'accent', newId()),
          unit: 'word',
          every: null,
          duration: { unit: 'stay', value: 0 },
          stagger: { ...newGestureUse('aurora', 'accent', '').stagger, overlap: 0 },
          colour: style.highlight,
        },
      ]
    : [];
  return next;
}

const captionOf = (text: string, start: Moment, end: Moment): TextLayer =>
  createLayer(
    'text',
    {
      name: text.split('\n')[0]!.slice(0, 60),
      start,
      end,
      content: { text, family: FIRST_STYLE.family, phrase: { role: 'caption', locked: false, emphasis: [] } },
    },
    newId,
  ) as TextLayer; // of the kind asked for

export function setCaptionStyle(
  change: Partial<CaptionStyle>,
  gesture: string | null = null,
  before: readonly Edit[] = [],
): void {
  const o = openDocument();
  if (!o) return;
  const style = { ...captionStyle(o.piece, o.times), ...change };
  edit(
    [
      ...before,
      {
        type: 'phrases.change',
        layers: captionLayers(o.piece, o.times).map((l) => styled(l, style, o.piece)),
        remove: [],
      },
    ],
    gesture,
  );
}

export function addCaption(): void {
  const o = openDocument();
  if (!o) return;
  const text = WORDS.newCaption;
  const start = momentAtPlayhead();
  const layer = styled(
    captionOf(text, start, freeMoment(Math.min(Math.max(o.times.end, playhead.seconds + 1), playhead.seconds + 2))),
    captionStyle(o.piece, o.times),
    o.piece,
  );
  edit([{ type: 'layer.add', layers: [layer] }]);
  selectLayers([layer.id]);
}

/** Puts cues in as captions, in one step. */
function addCues(cues: readonly Cue[]): number {
  const o = openDocument();
  if (!o) return 0;
  const room = MAX_LAYERS - o.piece.layers.length;
  const style = captionStyle(o.piece, o.times);
  const layers = cues
    .slice(0, room)
    .map((cue) =>
      styled(captionOf(cue.text.slice(0, 5000), freeMoment(cue.start), freeMoment(cue.end)), style, o.piece),
    );
  edit([{ type: 'layer.add', layers }]);
  return layers.length;
}

/**
 * Typed or pasted lines, one caption each, from the playhead on, each as long as it takes to read. Text with times is
 * read as captions.
 */
export function pasteCaptions(text: string): string {
  const timed = readSubtitles(text);
  if (timed.ok)
    return `${addCues(timed.read.cues)} captions${timed.read.skipped.length > 0 ? WORDS.theBlocksAtLines(timed.read.skipped.slice(0, 8).join(', ')) : ''}.`;
  if (timed.problem.code === 'TOO_MANY') return WORDS.theseAreCaptionsPut(timed.problem.detail);
  let at = playhead.seconds;
  const cues = text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .map((line) => {
      const start = at;
      at += Math.max(0.8, readingTime(line));
      return { start, end: at, text: line };
    });
  return WORDS.captionsFromThePlayhead(addCues(cues));
}

export function saveCaptions(kind: 'srt' | 'vtt'): void {
  const o = openDocument();
  if (!o) return;
  const cues = captionCues(o.piece, o.times);
  const link = document.createElement('a');
  link.href = URL.createObjectURL(
    new Blob([kind === 'srt' ? writeSrt(cues) : writeVtt(cues)], {
      type: kind === 'srt' ? 'application/x-subrip' : 'text/vtt',
    }),
  );
  link.download = `${o.piece.name.replace(/[^\p{L}\p{N} _-]/gu, '').trim() || 'captions'}.${kind}`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
  setView({ notice: WORDS.captionsWritten(cues.length) });
}
