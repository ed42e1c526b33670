import { ownTrack, dropStandingTracks } from '../document/tracks';
import { newGestureUse } from '../../motion';
import type { GestureId, GestureUse, TrackValue, Vector } from '../../motion';
import { beatMoment, overallTempo, secondsToBeat } from '../../time';
import type { IdSource } from '../document/create';
import { visitLayerMoments } from '../document/layer-moments';
import { leadFormat } from '../document/lead-format';
import { authorLayer, phraseLayers } from './phrase-sheet';
import { plainCopy } from '../document/plain-copy';
import type { PropertyId } from '../document/properties';
import type { ResolvedTimes } from '../times/resolve-times';
import type { Piece } from '../document/schema';
import type { TextLayer } from '../document/layer-schema';
import type { Sheet, StagingId } from '../document/sheet';
import { NO_DRESS, areaForSense, wordRanges } from '../document/text-content';
import type { Dress, TextArea, TextSpan } from '../document/text-content';
import type { Seconds } from '../../time';

/**
 * Stagings: what a run of phrases looks like. Places are shares of the frame and words fill them, so one staging serves
 * wide, tall and square. Each looks at how long a phrase is, where it stands in its group, and which words carry the
 * sense.
 */
interface Cue {
  readonly index: number;
  /** Place within its group, and how many stand there together; 0 of 1 where phrases come one by one. */
  readonly row: number;
  readonly rows: number;
  readonly characters: number;
  readonly words: number;
  readonly accent: string;
}

interface Composition {
  readonly area: TextArea;
  readonly family: string;
  readonly italic?: boolean;
  readonly align: 'left' | 'center' | 'right';
  readonly weight: number;
  readonly emphasis: {
    readonly weight?: number;
    readonly scale?: number;
    readonly family?: string;
    readonly italic?: boolean;
  };
  readonly values?: Partial<Record<PropertyId, number | Vector>>;
  readonly dress?: Partial<Dress>;
  readonly upper?: boolean;
  readonly colour?: string;
  readonly enters: readonly [GestureId, Partial<GestureUse>?];
  readonly leaves: readonly [GestureId, Partial<GestureUse>?];
  readonly stands?: readonly [GestureId, Partial<GestureUse>?];
}

const area = (x: number, y: number, width: number, height: number, valign: TextArea['valign'] = 'middle'): TextArea =>
  areaForSense({ x, y, width, height, valign });
/** The row of a group within a part of the frame: rows are parted evenly with a little air. */
const row = (cue: Cue, whole: TextArea): TextArea => {
  const height = whole.height / cue.rows;
  return {
    ...whole,
    y: whole.y + height * cue.row + (cue.rows > 1 ? height * 0.06 : 0),
    height: cue.rows > 1 ? height * 0.88 : height,
  };
};
const beats = (value: number): Partial<GestureUse> => ({ duration: { unit: 'beats', value } });
/** Short phrases move by letters, long ones by words: forty moving letters are a swarm. */
const fine = (cue: Cue): Partial<GestureUse> => (cue.characters <= 14 ? { unit: 'letter' } : { unit: 'word' });

const COMPOSITIONS: Readonly<Record<StagingId, (cue: Cue) => Composition>> = {
  lantern: (cue) => ({
    area: row(cue, area(0.1, 0.2, 0.8, 0.6)),
    family: 'bricolage-grotesque',
    align: 'center',
    weight: 560,
    emphasis: { weight: 800 },
    enters: ['mist', beats(1.5)],
    leaves: ['dusk', beats(0.75)],
    stands: ['drift'],
  }),
  pennants: (cue) => {
    const isLeft = cue.index % 2 === 0;
    return {
      area: row(cue, area(isLeft ? 0.07 : 0.2, 0.12, 0.73, 0.76)),
      family: 'bricolage-grotesque',
      align: isLeft ? 'left' : 'right',
      weight: 780,
      emphasis: { weight: 800 },
      enters: ['meteor', { ...beats(1), parameters: { direction: isLeft ? 180 : 0 } }],
      leaves: ['meteor', { ...beats(0.75), parameters: { direction: isLeft ? 0 : 180 } }],
    };
  },
  tidemark: (cue) => ({
    area: row(cue, area(0.07, cue.rows > 1 ? 0.3 : 0.5, 0.8, cue.rows > 1 ? 0.58 : 0.38, 'bottom')),
    family: 'spline-sans',
    align: 'left',
    weight: 520,
    emphasis: { weight: 700 },
    dress: { rule: { kind: 'under', colour: cue.accent, thickness: 0.05 } },
    enters: ['horizon', beats(1.5)],
    leaves: ['horizon', beats(1)],
  }),
  'kite-tail': (cue) => {
    const step = cue.rows > 1 ? cue.row : cue.index % 4;
    const height = 0.84 / cue.rows;
    return {
      // One by one, each has room enough and only begins lower; together they share the height.
      area:
        cue.rows > 1
          ? area(0.06 + 0.06 * step, 0.08 + height * step, 0.7, height * 0.86)
          : area(0.06 + 0.05 * step, 0.08 + 0.11 * step, 0.73, 0.5),
      family: 'syne',
      align: 'left',
      weight: 700,
      emphasis: { weight: 800 },
      values: { rotation: step % 2 === 0 ? -3 : 2.5 },
      enters: ['gust', { ...beats(1.5), ...fine(cue) }],
      leaves: ['sirocco', { ...beats(1.5), ...fine(cue) }],
    };
  },
  drumhead: (cue) => ({
    area: row(cue, area(0.04, 0.06, 0.92, 0.88)),
    family: 'big-shoulders-display',
    align: 'center',
    weight: 800,
    emphasis: { weight: 900, scale: 1.15 },
    upper: true,
    enters: ['thunder', { ...beats(0.6), unit: 'word', stagger: rhythmic(cue.words > 6 ? 0.25 : 0.5) }],
    leaves: ['nova', { ...beats(0.4), unit: 'whole' }],
  }),
  logbook: (cue) => ({
    area: row(cue, area(0.14, 0.22, 0.66, 0.56)),
    family: 'literata',
    align: 'left',
    weight: 400,
    emphasis: { italic: true, weight: 600 },
    enters: ['dawn', { ...beats(2), unit: 'word' }],
    leaves: ['dusk', beats(1)],
  }),
  signal: (cue) => ({
    area: row(cue, area(0.08, 0.3, 0.84, 0.4)),
    family: 'spline-sans-mono',
    align: 'left',
    weight: 500,
    emphasis: { weight: 700 },
    enters: ['beacon', { duration: { unit: 'seconds', value: Math.min(1.2, 0.045 * cue.characters) } }],
    leaves: [
      'beacon',
      {
        duration: { unit: 'seconds', value: Math.min(0.5, 0.016 * cue.characters) },
        stagger: { ...rhythmic(1), rhythm: null, overlap: 0, order: 'backward' },
      },
    ],
  }),
  bunting: (cue) => ({
    area: row(cue, area(0.1, 0.16, 0.8, 0.68)),
    family: 'grandstander',
    align: 'center',
    weight: 700,
    emphasis: { weight: 900 },
    values: { leading: 1.5 },
    colour: '#11151B',
    dress: {
      band: { per: 'word', colour: cue.index % 2 === 0 ? cue.accent : '#EEE9DF', padX: 0.11, padY: 0.16, radius: 0.12 },
    },
    enters: ['nova', { ...beats(0.8), unit: 'word', stagger: rhythmic(0.5) }],
    leaves: ['gravity', { ...beats(1), unit: 'word' }],
    stands: ['nod', { unit: 'word', parameters: { turn: 2.5 } }],
  }),
  'star-chart': (cue) => ({
    area: row(cue, area(0.1, 0.18, 0.8, 0.64)),
    family: 'comfortaa',
    align: 'center',
    weight: 600,
    emphasis: { weight: 700 },
    dress: { glow: { colour: `${cue.accent.slice(0, 7)}90`, radius: 0.12 } },
    enters: ['constellation', { ...beats(cue.characters > 24 ? 1.5 : 2), parameters: { distance: 2.5 } }],
    leaves: ['twinkle', beats(1)],
  }),
  searchlight: (cue) => ({
    area: row(cue, area(0.06, 0.24, 0.88, 0.52)),
    family: 'unbounded',
    align: 'center',
    weight: 500,
    emphasis: { weight: 800 },
    enters: ['eclipse', { ...beats(1.5), unit: 'line' }],
    leaves: ['eclipse', { ...beats(1), unit: 'line' }],
    stands: ['drift', { parameters: { grow: 0.04 } }],
  }),
};

function rhythmic(step: number): GestureUse['stagger'] {
  return { order: 'forward', overlap: 0.5, seed: 1, easing: { type: 'linear' }, rhythm: { pattern: 'x', step } };
}

/** Most phrases of a group that is built up, and most characters: more would be too small to read. */
const GROUP_PHRASES = 4;
const GROUP_CHARACTERS = 90;

/** Runs of phrases that are built up together: a group ends with a sentence or when it is full. */
function groups(layers: readonly TextLayer[]): TextLayer[][] {
  const out: TextLayer[][] = [];
  let current: TextLayer[] = [];
  let characters = 0;
  for (const layer of layers) {
    const { text } = layer.content;
    if (current.length > 0 && (current.length >= GROUP_PHRASES || characters + text.length > GROUP_CHARACTERS)) {
      out.push(current);
      current = [];
      characters = 0;
    }
    current.push(layer);
    characters += text.length;
    if (/[.!?…。！？]["”’»')\]」』]*$/u.test(text)) {
      out.push(current);
      current = [];
      characters = 0;
    }
  }
  if (current.length > 0) out.push(current);
  return out;
}

const uses = (
  pairs: readonly (readonly [GestureId, Partial<GestureUse>?] | undefined | null)[],
  roles: readonly GestureUse['role'][],
  newId: IdSource,
): GestureUse[] =>
  pairs.flatMap((pair, i) => (pair ? [{ ...newGestureUse(pair[0], roles[i]!, newId()), ...pair[1] }] : []));

/** Longest share of its time that a phrase may be on its way in, and out. */
const WAY_IN = 0.4;
const WAY_OUT = 0.25;

/** Moves that leave too little time for reading are made shorter. */
function withinTime(use: GestureUse, words: number, seconds: Seconds, beatSeconds: Seconds): GestureUse {
  if (use.duration.unit === 'stay' || use.role === 'accent') return use;
  const most = seconds * (use.role === 'entrance' ? WAY_IN : WAY_OUT);
  const { rhythm } = use.stagger;
  if (rhythm) {
    const whole = (words - 1) * rhythm.step * beatSeconds + use.duration.value * beatSeconds;
    if (whole <= most) return use;
    const step = Math.max(1 / 16, 2 ** Math.floor(Math.log2((rhythm.step * most) / whole)));
    return {
      ...use,
      duration: { unit: 'beats', value: Math.min(use.duration.value, most / beatSeconds) },
      stagger: { ...use.stagger, rhythm: { ...rhythm, step } },
    };
  }
  const length = use.duration.unit === 'beats' ? use.duration.value * beatSeconds : use.duration.value;
  return length <= most ? use : { ...use, duration: { unit: 'seconds', value: Math.round(most * 1000) / 1000 } };
}

/** Gives properties their standing values, but for those that have keyframes set by hand. */
function setStanding(layer: TextLayer, values: Partial<Record<PropertyId, TrackValue>>): void {
  for (const [property, value] of Object.entries(values) as [PropertyId, TrackValue][]) {
    // keys of the record
    if ((layer.tracks[property]?.keyframes.length ?? 0) === 0) ownTrack(layer, property).value = value;
  }
  dropStandingTracks(layer);
}

/** The run that phrases keep one size in. */
const PHRASES_RUN = 'phrases';
/** Compositions are made for the whole frame; while an author's line stands they keep to this share of its height. */
const ABOVE_AUTHOR = 0.86;
/** Its height decides the author's size: one line in wide frames, two of a long name in tall ones. */
const AUTHOR_TOP = 0.86;
const AUTHOR_HEIGHT = 0.05;
/** Largest size of the author's line, of the frame's shorter side. */
const AUTHOR_SIZE = 0.1;

/** A phrase's place; one whose every word is marked is emphasised as a whole and has a size of its own. */
function phraseArea(place: TextArea, isWholeMarked: boolean, hasAuthor: boolean): TextArea {
  const height = hasAuthor ? ABOVE_AUTHOR : 1;
  return { ...place, y: place.y * height, height: place.height * height, run: isWholeMarked ? null : PHRASES_RUN };
}

/**
 * The phrase layers (and the author's line) dressed, placed and moving as a staging has it. Times of phrases stay, but
 * in a group that is built up each phrase stands until its group ends. Keyframes set by hand on a phrase's position,
 * scale, turn and opacity are kept.
 * @returns Changed layers, for one `phrases.change` edit.
 */
export function stagePhrases(piece: Piece, times: ResolvedTimes, sheet: Sheet, newId: IdSource): TextLayer[] {
  const layers = phraseLayers(piece, times);
  const lead = leadFormat(piece);
  const largest = Math.round(Math.min(lead.width, lead.height) * 0.42);
  const beatSeconds = 60 / overallTempo(times.grid);
  const out: TextLayer[] = [];
  const compositions: Composition[] = [];
  const author = authorLayer(piece);
  const isBuilt = sheet.manner === 'build';
  for (const group of isBuilt ? groups(layers) : layers.map((layer) => [layer])) {
    const last = group[group.length - 1]!;
    const hasAuthor = author !== null && times.timeOf(last.end) > times.timeOf(author.start);
    for (const [k, layer] of group.entries()) {
      const index = layers.indexOf(layer);
      const { text, phrase } = layer.content;
      const words = wordRanges(text);
      const composition = COMPOSITIONS[sheet.staging]({
        index,
        row: k,
        rows: group.length,
        characters: text.length,
        words: words.length,
        accent: sheet.accent,
      });
      compositions.push(composition);
      const start = times.timeOf(layer.start);
      // A phrase that stood with its group goes back to its own time: up to the next one.
      const following = layers[index + 1];
      const ownEndMoment =
        following && times.timeOf(following.start) < times.timeOf(layer.end) && times.timeOf(following.start) > start
          ? following.start
          : layer.end;
      const ownEnd = times.timeOf(ownEndMoment);
      const emphasis = (phrase?.emphasis ?? []).filter((w) => w < words.length);
      const base = index === 0 && sheet.hasLoopCue ? sheet.accent : (composition.colour ?? sheet.colour);
      const marked = composition.colour ? '#B3392A' : index === 0 && sheet.hasLoopCue ? sheet.colour : sheet.accent;
      const spans: TextSpan[] = emphasis.map((w) => ({ ...words[w]!, ...composition.emphasis, colour: marked }));
      const leaves = sheet.manner === 'replace' ? null : composition.leaves;
      const gestures = uses(
        [composition.enters, leaves, composition.stands],
        ['entrance', 'exit', 'accent'],
        newId,
      ).map((use) => withinTime(use, words.length, ownEnd - start, beatSeconds));
      if (emphasis.length > 0) {
        const beat = Math.ceil(secondsToBeat(times.grid, start + Math.min(1, (ownEnd - start) * 0.45)) - 1e-3);
        gestures.push({
          ...newGestureUse('flare', 'accent', newId()),
          words: emphasis,
          at: beatMoment(beat, times.grid),
          landing: 'peak',
          colour: '#FFFFFF',
        });
      }
      const next = plainCopy(layer);
      next.gestures = gestures;
      next.end = isBuilt && k < group.length - 1 ? last.end : ownEndMoment;
      next.content = {
        ...next.content,
        family: composition.family,
        italic: composition.italic ?? false,
        align: composition.align,
        area: phraseArea(composition.area, emphasis.length === words.length, hasAuthor),
        wrapWidth: null,
        letterCase: composition.upper ? 'upper' : 'typed',
        spans,
        dress: { ...NO_DRESS, ...composition.dress },
      };
      setStanding(next, {
        size: largest,
        weight: composition.weight,
        fill: base,
        leading: 1.08,
        tracking: -0.01,
        rotation: 0,
        position: [0, 0],
        scale: [1, 1],
        ...composition.values,
      });
      out.push(next);
    }
  }
  const lastComposition = compositions[compositions.length - 1];
  if (author && lastComposition)
    out.push(
      stageAuthor(author, sheet, lastComposition, Math.round(Math.min(lead.width, lead.height) * AUTHOR_SIZE), newId),
    );
  return out;
}

function stageAuthor(
  author: TextLayer,
  sheet: Sheet,
  composition: Composition,
  size: number,
  newId: IdSource,
): TextLayer {
  const next = plainCopy(author);
  next.gestures = uses(
    [
      ['dawn', { ...beats(2), unit: 'whole' }],
      ['dusk', beats(1)],
    ],
    ['entrance', 'exit'],
    newId,
  );
  next.content = {
    ...next.content,
    family: 'spline-sans',
    align: composition.align,
    area: area(composition.area.x, AUTHOR_TOP, composition.area.width, AUTHOR_HEIGHT),
    wrapWidth: null,
    spans: [],
    dress: NO_DRESS,
  };
  setStanding(next, { size, weight: 500, fill: sheet.accent, tracking: 0.06, position: [0, 0] });
  return next;
}

/** A phrase moved to another span with all that is in it. */
export function movedPhrase(
  layer: TextLayer,
  start: TextLayer['start'],
  end: TextLayer['end'],
  shift: (moment: TextLayer['start']) => TextLayer['start'],
): TextLayer {
  const next = plainCopy(layer);
  visitLayerMoments(next, shift);
  return { ...next, start, end };
}
