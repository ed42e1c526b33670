import { MAX_LAYERS, copyLayers, findKey, spreadOrder, spreadTargets } from '@core/piece';
import type { KeyRef, SpreadOrder, SpreadPlan } from '@core/piece';
import { playhead } from '../../platform/clock';
import { newId } from '../../platform/ids';
import { edit, selectLayers, setView, useDesk } from '../../store/desk-store';
import { hitFacts } from '../music/marker-commands';
import { WORDS } from './words';

/** Lays the selected stars, or else the selected layers, on the places of a plan, in their present order of time. */
export function spreadSelection(plan: SpreadPlan, order: SpreadOrder): void {
  const { piece, times, selectedKeys, selectedLayers } = useDesk.getState();
  if (!piece || !times) return;
  const count = selectedKeys.length || selectedLayers.length;
  const targets = spreadTargets(plan, playhead.seconds, count, times, hitFacts);
  if (targets.length === 0)
    return setView({ notice: plan.kind === 'pattern' ? WORDS.aRhythmNeedsAt : WORDS.thereAreNoSuch });
  const take = spreadOrder(Math.min(count, targets.length), order);
  if (selectedKeys.length > 0) {
    const keys = selectedKeys
      .flatMap((ref) => {
        const key = findKey(piece, ref);
        return key ? [{ ref, time: times.timeOf(key.at) }] : [];
      })
      .sort((a, b) => a.time - b.time);
    edit([
      {
        type: 'keys.place',
        moves: take.flatMap((k, i): { ref: KeyRef; at: (typeof targets)[number] }[] =>
          keys[k] ? [{ ref: keys[k].ref, at: targets[i]! }] : [],
        ),
      },
    ]);
  } else {
    const layers = piece.layers
      .filter((l) => selectedLayers.includes(l.id))
      .sort((a, b) => times.timeOf(a.start) - times.timeOf(b.start));
    edit([
      {
        type: 'layer.place',
        places: take.flatMap((k, i) => (layers[k] ? [{ id: layers[k].id, at: targets[i]! }] : [])),
      },
    ]);
  }
  setView({ notice: `Spread ${take.length}${take.length < count ? WORDS.ofThereAreNo(count) : ''}` });
}

/** Copies of the selected layers, one set on each of the next places behind their own start. */
export function copiesOnBeats(plan: SpreadPlan, count: number): void {
  const { piece, times, selectedLayers } = useDesk.getState();
  if (!piece || !times) return;
  const layers = piece.layers.filter((l) => selectedLayers.includes(l.id));
  const first = Math.min(...layers.map((l) => times.timeOf(l.start)));
  const targets = spreadTargets(plan, first + 0.02, count, times, hitFacts);
  if (layers.length === 0 || targets.length === 0) return setView({ notice: WORDS.thereAreNoSuchPlaces });
  if (piece.layers.length + layers.length * targets.length > MAX_LAYERS)
    return setView({ notice: WORDS.aPieceCanHave(MAX_LAYERS) });
  const made = targets.flatMap((at) => copyLayers(layers, newId).map((copy) => ({ copy, at })));
  edit([
    { type: 'layer.add', layers: made.map((m) => m.copy) },
    { type: 'layer.place', places: made.map((m) => ({ id: m.copy.id, at: m.at })) },
  ]);
  selectLayers(made.map((m) => m.copy.id));
}
