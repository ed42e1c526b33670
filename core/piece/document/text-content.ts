import * as z from 'zod';
import { colourSchema } from '../../colour';
import { idsOf } from '../../motion';
import { idSchema, numberSchema, textSchema } from '../../time';

/**
 * What a text layer says and wears, beside the properties that can be keyframed. Lengths are em unless said otherwise.
 */

export const LETTER_CASES = {
  typed: 'as written',
  upper: 'all capitals',
  lower: 'all small',
  title: 'Capital Initials',
  small: 'small capitals',
} as const;
export type LetterCase = keyof typeof LETTER_CASES;
export const BAND_KINDS = { line: 'Each line', word: 'Each word', text: 'Whole text' } as const;
export const RULE_KINDS = { under: 'Underline', through: 'Strikethrough', marker: 'Highlighter' } as const;

const em = (max: number) => z.number().min(-max).max(max);
const length = (max: number) => z.number().min(0).max(max);

export const dressSchema = z.strictObject({
  /** A band behind the words that hugs them. */
  band: z
    .strictObject({ per: z.enum(idsOf(BAND_KINDS)), colour: colourSchema, padX: em(4), padY: em(4), radius: length(4) })
    .nullable()
    .default(null),
  shadow: z
    .strictObject({ colour: colourSchema, x: em(4), y: em(4), blur: length(4) })
    .nullable()
    .default(null),
  /** A shadow drawn out at an angle (degrees). */
  long: z
    .strictObject({ colour: colourSchema, angle: numberSchema, length: length(12) })
    .nullable()
    .default(null),
  /**
   * Letters that stand out of the picture: their sides run `depth` deep at an angle (degrees), from one colour into
   * another.
   */
  solid: z
    .strictObject({ colour: colourSchema, far: colourSchema, angle: numberSchema, depth: length(4) })
    .nullable()
    .default(null),
  glow: z
    .strictObject({ colour: colourSchema, radius: length(4) })
    .nullable()
    .default(null),
  /** A rule under, through or behind the words, drawn on with "Drawn to". */
  rule: z
    .strictObject({ kind: z.enum(idsOf(RULE_KINDS)), colour: colourSchema, thickness: length(2) })
    .nullable()
    .default(null),
  /** Outlines outside the layer's own stroke, the innermost first. */
  outlines: z
    .array(z.strictObject({ colour: colourSchema, width: length(1) }))
    .max(4)
    .default([]),
});
export type Dress = z.infer<typeof dressSchema>;
export const NO_DRESS: Dress = {
  band: null,
  shadow: null,
  long: null,
  solid: null,
  glow: null,
  rule: null,
  outlines: [],
};

/** A stretch of the words that looks different. Character indices, the end exclusive. */
export const textSpanSchema = z.strictObject({
  start: z.number().int().min(0).max(5000),
  end: z.number().int().min(0).max(5000),
  weight: z.number().min(1).max(1000).optional(),
  family: textSchema(120).optional(),
  italic: z.boolean().optional(),
  scale: z.number().min(0.2).max(4).optional(),
  colour: colourSchema.optional(),
});
export type TextSpan = z.infer<typeof textSpanSchema>;

/** How lines of words that fill a place are broken, and what people are told of it. */
export const BREAKS = { largest: 'Largest size', sense: 'By meaning' } as const;

/** A place in the frame that words fill: shares of the frame's width and height, so that it serves every format. */
export const textAreaSchema = z.strictObject({
  x: z.number().min(-2).max(2),
  y: z.number().min(-2).max(2),
  width: z.number().min(0.001).max(2),
  height: z.number().min(0.001).max(2),
  valign: z.enum(['top', 'middle', 'bottom']),
  /** Lines as large as can be, or lines that end where the sense does. */
  breaks: z.enum(idsOf(BREAKS)).default('largest'),
  /** Texts of one run keep one size, that of the one with least room; null for a size of its own. */
  run: textSchema(40).nullable().default(null),
});
export type TextArea = z.infer<typeof textAreaSchema>;
/** A place for words whose lines end where the sense does, with a size of their own. */
export const areaForSense = (place: Omit<TextArea, 'breaks' | 'run'>): TextArea => ({
  ...place,
  breaks: 'sense',
  run: null,
});

export const ROOM_WAYS = { shrink: 'Shrink text', wrap: 'Wrap lines', abbreviate: 'Abbreviate' } as const;
export type RoomWay = keyof typeof ROOM_WAYS;

/**
 * The room that words keep to, about their position: as wide as that, and what is done where they are longer, in the order
 * given. Pixels of the lead format.
 */
export const textRoomSchema = z.strictObject({
  width: z.number().min(1).max(100_000),
  lines: z.number().int().min(1).max(20),
  leastSize: z.number().min(1).max(4000),
  ways: z.array(z.enum(idsOf(ROOM_WAYS))).max(3),
});
export type TextRoom = z.infer<typeof textRoomSchema>;

/** SVG path data: its letters, numbers and separators, nothing else. */
export const pathDataSchema = z
  .string()
  .max(200_000)
  .regex(/^[\sA-Za-z\d.,+-]*$/, 'this is no path data');
/** Further outlines of a path, drawn in its box. */
export const formsSchema = z
  .array(z.strictObject({ id: idSchema, name: textSchema(80), d: pathDataSchema }))
  .max(16)
  .default([]);
export const pathBoxSchema = z.tuple([z.number().min(0.001).max(100_000), z.number().min(0.001).max(100_000)]);

/**
 * The curve a line of text runs along: an arc over its own width, a circle, or a path whose box lies centred on the
 * layer's position. Pixels of the lead format.
 */
export const textAlongSchema = z.discriminatedUnion('shape', [
  z.strictObject({ shape: z.literal('arc') }),
  z.strictObject({ shape: z.literal('circle'), radius: z.number().min(1).max(10_000), inside: z.boolean() }),
  z.strictObject({ shape: z.literal('path'), d: pathDataSchema, box: pathBoxSchema }),
]);
export type TextAlong = z.infer<typeof textAlongSchema>;
export const ALONG_SHAPES = { arc: 'Arc', circle: 'Circle', path: 'Path' } as const satisfies Record<
  TextAlong['shape'],
  string
>;

/** What ties a text layer to the phrase sheet. */
export const phraseTagSchema = z.strictObject({
  role: z.enum(['phrase', 'author', 'caption', 'credit-role', 'credit-name', 'credit-heading']),
  /** Its time stays when phrases are laid on the music. */
  locked: z.boolean(),
  /** Words that carry the sense, counted from 0. */
  emphasis: z.array(z.number().int().min(0).max(5000)).max(100),
});
export type PhraseTag = z.infer<typeof phraseTagSchema>;

/** The text in its letter case, of the same length, so that spans keep their places (ß stays ß). */
export function inCase(text: string, letterCase: LetterCase): string {
  const each = (change: (c: string) => string) =>
    [...text]
      .map((c) => {
        const d = change(c);
        return d.length === c.length ? d : c;
      })
      .join('');
  // Greek capitals have no accents in capitals throughout, and rules of its own; other letters are as everywhere.
  if (letterCase === 'upper' || letterCase === 'small') return each((c) => c.toLocaleUpperCase('el'));
  if (letterCase === 'lower') return each((c) => c.toLowerCase());
  if (letterCase === 'title')
    return text.replace(/(^|[\s\-\u2013\u2014("“'])(\p{Ll})/gu, (whole, before: string, c: string) =>
      c.toUpperCase().length === c.length ? before + c.toUpperCase() : whole,
    );
  return text;
}

/**
 * Size of small capitals: about the x-height of most faces. Set from capitals, because few faces have ones of their
 * own.
 */
const SMALL_CAPITAL = 0.76;

/** The spans that make small capitals of small letters. */
export function smallCapitals(text: string): TextSpan[] {
  return [...text.matchAll(/\p{Ll}+/gu)].map((m) => ({
    start: m.index,
    end: m.index + m[0].length,
    scale: SMALL_CAPITAL,
  }));
}

/**
 * Spans after the text was changed: places before the change stay, places behind it move, what was in it goes with it.
 */
export function followText(spans: readonly TextSpan[], before: string, after: string): TextSpan[] {
  let head = 0;
  while (head < before.length && head < after.length && before[head] === after[head]) head++;
  let tail = 0;
  while (
    tail < before.length - head &&
    tail < after.length - head &&
    before[before.length - 1 - tail] === after[after.length - 1 - tail]
  )
    tail++;
  const grown = after.length - before.length;
  const from = before.length - tail;
  const place = (i: number, isEnd: boolean) =>
    i < head || (i === head && (isEnd || from > head)) ? i : i >= from ? i + grown : isEnd ? after.length - tail : head;
  return spans
    .map((span) => ({ ...span, start: place(span.start, false), end: place(span.end, true) }))
    .filter((span) => span.end > span.start);
}

/** Where the words of a text are: maximal runs without white space. Character indices, ends exclusive. */
export function wordRanges(text: string): { start: number; end: number }[] {
  return [...text.matchAll(/\S+/gu)].map((m) => ({ start: m.index, end: m.index + m[0].length }));
}
