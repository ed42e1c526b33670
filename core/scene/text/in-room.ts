import { followText } from '../../piece';
import type { RoomWay, TextRoom, TextSpan } from '../../piece';
import { UNITS, shorterForms } from '../../text';
import type { TextLayout, TextStyle } from '../../text';
import { createMemo } from '../../time';
import type { LayoutText } from './text-at';

/** Words as they are set within a room. */
export interface InRoom {
  readonly text: string;
  readonly spans: readonly TextSpan[];
  readonly key: string;
  readonly layout: TextLayout;
  /** Pixels of the lead format. */
  readonly size: number;
  /** Whether there is too little room for them, whatever was done. */
  readonly isTooLong: boolean;
}

/** Halvings of the stretch between the least and the largest size: less than a hundredth of it is left. */
const HALVINGS = 7;
/** Of the width: what rounding may exceed. */
const SLACK = 1.001;

const widestOf = ({ lines }: TextLayout): number => Math.max(0, ...lines.map((line) => line.width));

type Set = Omit<InRoom, 'isTooLong'>;
interface Wanted {
  readonly style: TextStyle;
  readonly size: number;
  readonly room: TextRoom;
  readonly layoutText: LayoutText;
}

const setAt = ({ style, layoutText }: Wanted, text: string, size: number, wrapWidth: number | null): Set => {
  const spans = style.spans ?? [];
  return {
    text,
    spans,
    size,
    ...layoutText(text, { ...style, wrapWidth: wrapWidth === null ? null : wrapWidth / size }),
  };
};

const fits = ({ room }: Wanted, { layout, size }: Set): boolean =>
  (widestOf(layout) / UNITS) * size <= room.width * SLACK &&
  layout.lines.length <= Math.max(room.lines, 1) &&
  !layout.lines.some((line) => line.cutsWord);

/** As the lines are typed: at the size that is wanted, or the one at which the longest of them has room. */
function onItsLines(wanted: Wanted, text: string, ways: readonly RoomWay[]): Set {
  const plain = setAt(wanted, text, wanted.size, null);
  if (!ways.includes('shrink') || fits(wanted, plain)) return plain;
  const size = Math.max(
    Math.min(wanted.size, wanted.room.leastSize),
    Math.min(wanted.size, (wanted.room.width / Math.max(1, widestOf(plain.layout))) * UNITS),
  );
  return setAt(wanted, text, size, null);
}

/** On as many lines as there may be, as large as they come. */
function onMoreLines(wanted: Wanted, text: string, ways: readonly RoomWay[]): Set {
  const at = (size: number): Set => setAt(wanted, text, size, wanted.room.width);
  const whole = at(wanted.size);
  if (!ways.includes('shrink') || fits(wanted, whole)) return whole;
  let [low, high] = [Math.min(wanted.size, wanted.room.leastSize), wanted.size];
  let best = at(low);
  if (!fits(wanted, best)) return best;
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    const tried = at(middle);
    if (fits(wanted, tried)) {
      best = tried;
      low = middle;
    } else high = middle;
  }
  return best;
}

function found(wanted: Wanted, text: string): InRoom {
  const { ways } = wanted.room;
  const allowed = (n: number): readonly RoomWay[] => ways.slice(0, n);
  const tried = (words: string, by: readonly RoomWay[]): Set =>
    by.includes('wrap') ? onMoreLines(wanted, words, by) : onItsLines(wanted, words, by);
  let last = tried(text, []);
  if (fits(wanted, last)) return { ...last, isTooLong: false };
  for (let n = 1; n <= ways.length; n++) {
    if (ways[n - 1] === 'abbreviate') {
      for (const shorter of shorterForms(text)) {
        const spans = followText([...(wanted.style.spans ?? [])], text, shorter);
        const own = { ...wanted, style: { ...wanted.style, spans } };
        last = tried(shorter, allowed(n));
        last = spans.length > 0 ? { ...setAgain(own, last), spans } : last;
        if (fits(wanted, last)) return { ...last, isTooLong: false };
      }
    } else {
      last = tried(text, allowed(n));
      if (fits(wanted, last)) return { ...last, isTooLong: false };
    }
  }
  return { ...last, isTooLong: true };
}

/** The same words at the same size, with spans that follow them. */
const setAgain = (wanted: Wanted, { text, size, layout }: Set): Set =>
  setAt(wanted, text, size, layout.lines.length > 1 ? wanted.room.width : null);

const known = new WeakMap<LayoutText, ReturnType<typeof createMemo<InRoom>>>();
const MOST_KNOWN = 400;

/**
 * Sets words so that they keep to a room: by the ways that it allows, in its order, each on top of those before it.
 * @param key - says the same for the same words in the same style, fonts included.
 * @param size - the largest, pixels of the lead format.
 */
export function setInRoom(
  layoutText: LayoutText,
  key: string,
  text: string,
  style: TextStyle,
  size: number,
  room: TextRoom,
): InRoom {
  let memo = known.get(layoutText);
  if (!memo) known.set(layoutText, (memo = createMemo<InRoom>(MOST_KNOWN)));
  const { width, lines, leastSize, ways } = room;
  return memo(`${key}|${size.toFixed(2)}|${width.toFixed(1)},${lines},${leastSize},${ways.join()}`, () =>
    found({ style, size, room, layoutText }, text),
  );
}
