import { FIGURES } from '@core/geometry';
import type { FigureId } from '@core/geometry';
import type { TrackValue } from '@core/motion';
import { coversFrame, createLayer, leadFormat } from '@core/piece';
import type { Edit, LayerKind, Piece, PropertyId } from '@core/piece';
import { DEFAULT_FAMILY } from '@core/text';
import { beatMoment, beatToSeconds, freeMoment, secondsToBeat } from '@core/time';
import type { Moment } from '@core/time';
import { playhead } from '../../platform/clock';
import { newId } from '../../platform/ids';
import { edit, openDocument, selectLayers, useDesk } from '../../store/desk-store';
import { WORDS } from './words';

/** Ways to put something new into the piece. */

/** Span for something new: from the playhead's beat for two bars, within the piece. */
export function newSpan(): { start: Moment; end: Moment } {
  const o = openDocument();
  if (!o) return { start: freeMoment(0), end: freeMoment(2) };
  const { grid, end } = o.times;
  if (!useDesk.getState().isSnapping)
    return {
      start: freeMoment(playhead.seconds),
      end: freeMoment(Math.max(playhead.seconds + 0.5, Math.min(end, playhead.seconds + 4))),
    };
  const beat = Math.floor(secondsToBeat(grid, playhead.seconds) + 1e-3);
  const start = playhead.seconds <= 0.001 ? freeMoment(0) : beatMoment(beat, grid);
  const wanted = beatMoment(beat + 2 * (grid.meters[0]?.beatsPerBar ?? 4), grid);
  return { start, end: beatToSeconds(grid, beat + 8) > end && end > playhead.seconds + 0.5 ? o.piece.end : wanted };
}

function addLayer(
  kind: LayerKind,
  name: string,
  content: Record<string, unknown>,
  values: Partial<Record<PropertyId, TrackValue>>,
  before: readonly Edit[] = [],
): string {
  const layer = createLayer(kind, { name, ...newSpan(), content, values }, newId);
  edit([...before, { type: 'layer.add', layers: [layer] }]);
  selectLayers([layer.id]);
  return layer.id;
}

/** What new words say until someone types over them. */
export const UNTOUCHED_WORDS = WORDS.yourWords;

export function addText(text: string = UNTOUCHED_WORDS, family: string = DEFAULT_FAMILY): string {
  const o = openDocument();
  const lead = o && leadFormat(o.piece);
  return addLayer(
    'text',
    text.slice(0, 60),
    { text, family },
    { size: Math.round(Math.min(lead?.width ?? 1920, lead?.height ?? 1080) / 9) },
  );
}
export const addRectangle = (): string => addLayer('rectangle', WORDS.rectangle, {}, { fill: '#FFB74A' });
export const addEllipse = (): string => addLayer('ellipse', WORDS.ellipse, {}, { fill: '#54C6C0' });
/** A line is a stroke; other figures are filled. */
export const addFigure = (figure: FigureId): string =>
  addLayer(
    'figure',
    FIGURES[figure].label,
    { figure },
    figure === 'line'
      ? { fill: '#00000000', stroke: '#FFB74A', strokeWidth: 8, dimensions: [600, 8] }
      : { fill: '#FFB74A', dimensions: figure === 'bubble' || figure === 'arrow' ? [420, 260] : [300, 300] },
  );
export const addKite = (): string =>
  addLayer(
    'path',
    WORDS.diamond,
    { d: 'M100 0L200 110L100 280L0 110Z', box: [200, 280] },
    { fill: '#FF6F59', dimensions: [200, 280] },
  );
export const addWave = (): string =>
  addLayer(
    'path',
    WORDS.wave,
    {
      d: 'M0 60C160 10 320 0 480 40C640 80 800 90 960 50C1120 10 1280 0 1440 40C1600 80 1760 70 1920 30L1920 400L0 400Z',
      box: [1920, 400],
    },
    { fill: '#143749', dimensions: [1920, 400], position: [0, 400] },
  );
/** A line of its own: no fill, a stroke that can be drawn on. Pixels of the lead format. */
export const addStroke = (d: string, box: [number, number], position: [number, number]): string =>
  addLayer(
    'path',
    WORDS.drawnLine,
    { d, box },
    { fill: '#00000000', stroke: '#FFB74A', strokeWidth: 8, dimensions: box, position },
  );
/** Effects over everything below it: it begins with a little more contrast, so that it is seen. */
export const addLook = (): string => {
  const layer = createLayer('look', { name: WORDS.look, ...newSpan() }, newId);
  layer.effects = [
    { id: newId(), kind: 'levels', isOn: true, seed: 0, parameters: { contrast: { value: 12, keyframes: [] } } },
  ];
  edit([{ type: 'layer.add', layers: [layer] }]);
  selectLayers([layer.id]);
  return layer.id;
};
/** A shape of points: filled if it is closed, else a line. Pixels of the lead format. */
export const addPath = (d: string, box: [number, number], position: [number, number], isClosed: boolean): string =>
  isClosed
    ? addLayer('path', WORDS.drawnShape, { d, box }, { fill: '#FFB74A', dimensions: box, position })
    : addStroke(d, box, position);
/** How many layers lie at the very back that cover the whole frame. */
function backdrops(piece: Piece): number {
  const lead = leadFormat(piece);
  const { layers } = piece;
  const first = layers.findIndex(
    (layer) => layer.parentId !== null || layer.kind === 'group' || !coversFrame(layer, lead),
  );
  return first < 0 ? layers.length : first;
}

/**
 * Footage fills the frame in front of what covers it, behind everything else, for as long as it lasts.
 * @param start - when it begins.
 */
export function addFootage(media: Extract<Edit, { type: 'media.add' }>['media'], start: Moment): void {
  const o = openDocument();
  if (!o) return;
  const { width, height } = leadFormat(o.piece);
  const isFirst = o.piece.layers.length === 0 && !o.piece.music;
  const from = o.times.timeOf(start);
  const until = from + (media.duration ?? 0);
  const end = isFirst || until < o.times.end ? freeMoment(until) : o.piece.end;
  const layer = createLayer(
    'picture',
    {
      ...{ name: media.name, start, end },
      content: { mediaId: media.id, fit: 'fill' },
      values: { dimensions: [width, height] },
    },
    newId,
  );
  layer.constraints = { horizontal: 'both', vertical: 'both', within: 'frame', scales: 'not' };
  edit([
    { type: 'media.add', media },
    { type: 'layer.add', layers: [layer], at: backdrops(o.piece) },
    ...(isFirst ? [{ type: 'piece.setEnd' as const, end: freeMoment(until) }] : []),
  ]);
  selectLayers([layer.id]);
}
export function addPicture(media: Extract<Edit, { type: 'media.add' }>['media']): string {
  const o = openDocument();
  const lead = o && leadFormat(o.piece);
  const k = Math.min(
    1,
    ((lead?.width ?? 1920) * 0.6) / (media.width ?? 1),
    ((lead?.height ?? 1080) * 0.6) / (media.height ?? 1),
  );
  return addLayer(
    'picture',
    media.name,
    { mediaId: media.id },
    { dimensions: [Math.round((media.width ?? 640) * k), Math.round((media.height ?? 360) * k)] },
    [{ type: 'media.add', media }],
  );
}
