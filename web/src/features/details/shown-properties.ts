import { PROPERTY_IDS, hasProperty, trackOf } from '@core/piece';
import type { Layer, PropertyId } from '@core/piece';
import { onDesk } from '../layers/layer-kinds';

const hasStroke = (layer: Layer): boolean => {
  const track = trackOf(layer, 'strokeWidth');
  return track !== undefined && (Number(track.value) > 0 || track.keyframes.length > 0);
};

/**
 * Properties that say nothing until something else is there: axes of the font, parts of a stroke, a curve, a picture, a
 * band.
 */
function wears(layer: Layer, property: PropertyId, axes: object): boolean {
  switch (property) {
    case 'letterWidth':
    case 'lean':
    case 'opticalSize':
    case 'axisA':
    case 'axisB':
    case 'axisC':
      return property in axes;
    case 'drawStart':
    case 'drawEnd':
    case 'drawOffset':
      return hasStroke(layer);
    case 'fillEnd':
      return 'gradient' in layer.content && layer.content.gradient !== 'none';
    case 'gradientAngle':
      return 'gradient' in layer.content && layer.content.gradient === 'linear';
    default:
      break;
  }
  return onDesk(layer).shows?.(layer, property) ?? true;
}

/**
 * Properties in order of use, without those that have no meaning for the layer as it is.
 * @param axes - the axes of its font by property.
 */
export function shownProperties(layer: Layer, axes: object): PropertyId[] {
  const { first } = onDesk(layer);
  const all = [...first, ...PROPERTY_IDS.filter((p) => !first.includes(p))];
  return all.filter((p) => hasProperty(layer.kind, p) && wears(layer, p, axes));
}
