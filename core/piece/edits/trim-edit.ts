import type { Moment } from '../../time';
import type { Layer } from '../document/layer-schema';
import type { Edit } from './index';

/**
 * The edit that trims a layer to a new start or end. What was made from a template comes in and goes out as before,
 * however short it becomes; any other layer is cut off there.
 */
export const trimEdit = (
  layer: Pick<Layer, 'id' | 'madeFrom'>,
  span: { readonly start?: Moment; readonly end?: Moment },
): Edit =>
  layer.madeFrom ? { type: 'group.stretch', id: layer.id, ...span } : { type: 'layer.setSpan', id: layer.id, ...span };
