import { resolveTimes } from '../times/resolve-times';
import { createLayer } from '../document/create';
import type { IdSource } from '../document/create';
import { copiedFrom, pastedInto } from '../document/copied-layers';
import type { Pasted } from '../document/copied-layers';
import type { GroupLayer, Layer } from '../document/layer-schema';
import type { Piece } from '../document/schema';
import type { MadeFrom } from '../document/template-schema';
import { byId } from '../document/tree';
import { layersForLead } from './for-lead';

/** Putting a template into a piece: ordinary layers in a group, with the slots on top. */

export interface PutIn extends Pasted {
  readonly group: GroupLayer;
}

/** The group that a template is: its one root, or one about all of its layers. */
function grouped(template: Piece, newId: IdSource): { layers: Layer[]; group: GroupLayer } {
  const roots = template.layers.filter((layer) => layer.parentId === null);
  const [only] = roots;
  if (roots.length === 1 && only?.kind === 'group') return { layers: [...template.layers], group: only };
  const times = resolveTimes(template, null);
  const edge = (end: 'start' | 'end', isBefore: (a: number, b: number) => boolean): Layer =>
    roots.reduce((best, next) => (isBefore(times.timeOf(next[end]), times.timeOf(best[end])) ? next : best));
  const group = createLayer(
    'group',
    {
      name: template.name.slice(0, 200),
      start: edge('start', (a, b) => a < b).start,
      end: edge('end', (a, b) => a > b).end,
    },
    newId,
  );
  const layers = template.layers.map((layer) => (layer.parentId === null ? { ...layer, parentId: group.id } : layer));
  return { layers: [...layers, group], group };
}

const madeFrom = (template: Piece, rules: NonNullable<Piece['template']>): MadeFrom => ({
  id: template.id,
  version: rules.version,
  name: template.name,
  slots: rules.slots,
  timing: rules.timing,
  values: {},
  isMirrored: false,
});

/**
 * What a template becomes in a piece; null if it is none, or empty. Its group still stands where it stands in the
 * template.
 */
export function putIn(template: Piece, piece: Piece, newId: IdSource): PutIn | null {
  const rules = template.template;
  if (!rules || template.layers.length === 0) return null;
  const { layers, group } = grouped(template, newId);
  const own = { ...template, layers: layersForLead(layers, template, piece) };
  const copied = copiedFrom(own, [group.id]);
  if (!copied) return null;
  const fixed = new Set(rules.fixed);
  const inOrder = copied.layers.map((layer) => layer.id);
  // Overrides are already those of the piece's own formats.
  const pasted = pastedInto(copied, piece, newId);
  const home = byId(copied.layers);
  const made = pasted.layers.map((layer, i) => {
    const from = home.get(inOrder[i]!)!; // copies keep their order
    const locked = fixed.has(from.id);
    return from.id === group.id
      ? { ...layer, name: template.name.slice(0, 200), madeFrom: madeFrom(template, rules) }
      : { ...layer, locked };
  });
  const stands = made.find((layer): layer is GroupLayer => layer.kind === 'group' && layer.madeFrom !== null);
  return stands ? { ...pasted, layers: made, group: stands } : null;
}
