import type { Track, Vector } from '../../motion';
import { EFFECT_KINDS } from '../document/effect-kinds';
import type { Layer } from '../document/layer-schema';
import { fitIn, pivotOf } from '../document/place';
import type { Fit } from '../document/place';
import { plainCopy } from '../document/plain-copy';
import type { Format, Piece } from '../document/schema';
import { dropStandingTracks, hasProperty, ownTrack, trackOf } from '../document/tracks';

/**
 * Layers as they are written for another lead format: positions and sizes in its pixels, so that they look in it, and in
 * the other formats of the piece they come into, as they did at home.
 */

/** The format of a piece that is nearest in shape. */
export function nearestFormat(formats: readonly Format[], to: Format): Format {
  const unlike = (format: Format): number => Math.abs(Math.log(format.width / format.height / (to.width / to.height)));
  return formats.reduce((best, next) => (unlike(next) < unlike(best) - 1e-6 ? next : best));
}

function changeAll(track: Track, by: (value: never) => Track['value']): void {
  track.value = by(track.value as never); // a track holds values of one kind
  for (const key of track.keyframes) key.value = by(key.value as never);
}

const times = (factor: number) => (value: number) => value * factor;
const both =
  (factor: number) =>
  ([x, y]: Vector): Vector => [x * factor, y * factor];

/** Lengths that are not scaled with the layer: pixels of the lead format. */
function scaleLengths(layer: Layer, factor: number): void {
  if (factor === 1) return;
  if (layer.tracks.blur) changeAll(layer.tracks.blur, times(factor));
  for (const effect of layer.effects) {
    const rows: Readonly<Record<string, object>> = EFFECT_KINDS[effect.kind].parameters;
    for (const [id, track] of Object.entries(effect.parameters)) {
      const row = rows[id];
      if (row && 'unit' in row && row.unit === 'px') changeAll(track, times(factor));
    }
  }
  if (layer.repeat) {
    layer.repeat.step = both(factor)(layer.repeat.step);
    layer.repeat.radius *= factor;
  }
  if (layer.hug) {
    layer.hug.padX *= factor;
    layer.hug.padY *= factor;
  }
}

/** The layer with what its fit makes of it written into its own values. */
function written(layer: Layer, fit: Fit): Layer {
  const copy = plainCopy(layer);
  const [mx, my] = fit.move;
  const [ax, ay] = fit.along;
  const position = ownTrack(copy, 'position');
  changeAll(position, ([x, y]: Vector): Vector => [x * ax + mx, y * ay + my]);
  for (const key of position.keyframes) {
    if (key.tangentIn) key.tangentIn = [key.tangentIn[0] * ax, key.tangentIn[1] * ay];
    if (key.tangentOut) key.tangentOut = [key.tangentOut[0] * ax, key.tangentOut[1] * ay];
  }
  const isPlaced = copy.kind === 'text' && copy.content.area !== null;
  if (copy.kind === 'group') {
    // A group moves the pixels of the frame, which are already those of the new lead.
    changeAll(ownTrack(copy, 'scale'), both(fit.factor / fit.base));
    changeAll(ownTrack(copy, 'anchor'), both(fit.base));
  } else if (isPlaced) changeAll(ownTrack(copy, 'size'), times(fit.factor));
  else changeAll(ownTrack(copy, 'scale'), both(fit.factor));
  if (fit.stretch.some((more) => more !== 0) && hasProperty(copy.kind, 'dimensions'))
    changeAll(ownTrack(copy, 'dimensions'), ([w, h]: Vector): Vector => [w + fit.stretch[0], h + fit.stretch[1]]);
  scaleLengths(copy, fit.factor);
  dropStandingTracks(copy);
  return copy;
}

/** Pixels of difference that nobody sees. */
const UNSEEN = 1;

/** What the layer needs in a format so that it looks there as it did at home; null if it does by itself. */
function overrideFor(
  home: { readonly layer: Layer; readonly lead: Format; readonly format: Format },
  here: { readonly layer: Layer; readonly lead: Format; readonly format: Format },
  factor: number,
): Layer['overrides'][string] | null {
  const own = home.layer.overrides[home.format.id];
  const wanted = fitIn(home.layer, home.lead, { ...here.format, id: home.format.id });
  const plain = fitIn({ ...here.layer, overrides: {} }, here.lead, here.format);
  const at = (layer: Layer): Vector => (trackOf(layer, 'position')?.value ?? [0, 0]) as Vector; // a track of vectors
  // Of a group its own scaling counts: what is in it is scaled besides.
  const sizeOf = (fit: Fit): number => (here.layer.kind === 'group' ? fit.factor / fit.base : fit.factor);
  const scale = sizeOf(wanted) / (sizeOf(plain) * factor);
  const scaled = { ...plain, along: [plain.along[0] * scale, plain.along[1] * scale] as Vector };
  const [tx, ty] = pivotOf(at(home.layer), wanted);
  const [hx, hy] = pivotOf(at(here.layer), scaled);
  const move: Vector = [tx - hx, ty - hy];
  const isSame = Math.abs(scale - 1) < 0.002 && Math.hypot(...move) < UNSEEN;
  if (isSame && !own?.hidden && !own?.tracks && !own?.parts) return null;
  return {
    move: isSame ? [0, 0] : move,
    scale: isSame ? 1 : scale,
    hidden: own?.hidden ?? false,
    ...(own?.tracks ? { tracks: plainCopy(own.tracks) } : {}),
    ...(own?.parts ? { parts: plainCopy(own.parts) } : {}),
  };
}

/**
 * @param home - the piece that the layers come from.
 * @param piece - the one they come into.
 */
export function layersForLead(
  layers: readonly Layer[],
  home: Pick<Piece, 'formats' | 'leadFormatId'>,
  piece: Pick<Piece, 'formats' | 'leadFormatId'>,
): Layer[] {
  const leadOf = (one: Pick<Piece, 'formats' | 'leadFormatId'>): Format =>
    one.formats.find((format) => format.id === one.leadFormatId) ?? one.formats[0]!; // a piece has one
  const [from, to] = [leadOf(home), leadOf(piece)];
  const asLead = nearestFormat(home.formats, to);
  const isSameSize = from.width === to.width && from.height === to.height;
  return layers.map((layer) => {
    const fit = fitIn(layer, from, { ...to, id: isSameSize ? from.id : asLead.id });
    const copy = isSameSize ? plainCopy(layer) : written(layer, fit);
    const factor = isSameSize ? 1 : layer.kind === 'group' ? fit.factor / fit.base : fit.factor;
    if (!isSameSize && layer.overrides[asLead.id]?.hidden) copy.hidden = true;
    copy.overrides = {};
    for (const format of piece.formats) {
      if (format.id === to.id) continue;
      const nearest = nearestFormat(home.formats, format);
      const override = overrideFor({ layer, lead: from, format: nearest }, { layer: copy, lead: to, format }, factor);
      if (override) copy.overrides[format.id] = override;
    }
    return copy;
  });
}
