import type { Edit } from '@core/piece';
import { formatOf } from '@core/piece';
import { edit, setView, useDesk } from '../../store/desk-store';
import { placesNow } from '../desk/group-commands';
import { alignedBy, distributedBy } from './align';
import type { Alignment } from './align';
import { movable, moveEdit } from './drags';
import { boundsOf, boundsOfAll } from './geometry';
import { WORDS } from './words';

/** The selected layers that can be moved and are seen, with their boxes in pixels of the format. */
function standing() {
  const { piece, selectedLayers, formatId } = useDesk.getState();
  if (!piece) return null;
  const format = formatOf(piece, formatId);
  const places = placesNow();
  const found = movable(piece, format, selectedLayers).flatMap((moved) => {
    const place = places.find((p) => p.layerId === moved.layer.id);
    return place ? [{ moved, box: boundsOf(place.corners) }] : [];
  });
  if (found.length === 0) setView({ notice: WORDS.nothingToAlign });
  return { scene: { piece, format }, format, found };
}

/** Lines the selected layers up: several with one another, one alone with the frame. */
export function align(to: Alignment): void {
  const now = standing();
  if (!now) return;
  const frame = { left: 0, top: 0, right: now.format.width, bottom: now.format.height };
  const about = now.found.length > 1 ? boundsOfAll(now.found.map((f) => f.box)) : frame;
  if (!about) return;
  edit(now.found.map(({ moved, box }): Edit => moveEdit(now.scene, moved, ...alignedBy(box, about, to))));
}

/** Makes the gaps between the selected layers equal. */
export function distribute(axis: 'x' | 'y'): void {
  const now = standing();
  if (!now) return;
  if (now.found.length < 3) return setView({ notice: WORDS.threeToDistribute });
  const by = distributedBy(
    now.found.map((f) => f.box),
    axis,
  );
  edit(
    now.found.map(({ moved }, i): Edit => {
      const way = by[i] ?? 0;
      return moveEdit(now.scene, moved, axis === 'x' ? way : 0, axis === 'x' ? 0 : way);
    }),
  );
}
