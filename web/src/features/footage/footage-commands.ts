import { followEdits, looksAt, windowOf } from '@core/adapt';
import { footageOf, footageSeconds, footageSpeed } from '@core/piece';
import { freeMoment } from '@core/time';
import { newId } from '../../platform/ids';
import { lookAtFootage } from '../../platform/footage-client';
import { edit, openDocument, setView } from '../../store/desk-store';
import { WORDS } from './words';

/** The footage of a layer as it is by now; null if it shows none. */
function footageNow(id: string) {
  const opened = openDocument();
  const layer = opened?.piece.layers.find((one) => one.id === id);
  const shown = opened && layer ? footageOf(opened.piece.media, layer) : null;
  return opened && shown ? { ...opened, ...shown } : null;
}

/** Moves the end of a layer to where its footage ends, or to the end of the piece. */
export function showTheRest(id: string): void {
  const now = footageNow(id);
  if (!now) return;
  const { layer, ref, times, piece } = now;
  const speed = footageSpeed(layer) || 1;
  const end = times.timeOf(layer.start) + (footageSeconds(ref.footage) - layer.content.from) / speed;
  edit([{ type: 'layer.setSpan', id, end: end >= times.end ? piece.end : freeMoment(end) }]);
}

/** Has what is seen of footage follow what matters in it. What goes wrong is told. */
export async function followTheSubject(
  id: string,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<void> {
  const before = footageNow(id);
  if (!before) return;
  const { ref } = before;
  const crop = windowOf(before.piece, before.layer, (ref.width ?? 16) / (ref.height ?? 9));
  if (!crop) return setView({ notice: WORDS.allIsSeen });
  const looks = looksAt(before.layer, ref, before.times);
  try {
    const work = { hash: ref.hash, frames: looks.map(({ frame }) => frame), crop };
    const { shots, focus } = await lookAtFootage(work, onProgress, signal);
    // What was changed meanwhile stays, if it is still this footage.
    const now = footageNow(id);
    if (now?.ref.hash !== ref.hash) return;
    edit(followEdits(now.piece, now.layer, now.ref, now.times, { looks, shots, focus }, newId));
    setView({ notice: WORDS.isFollowed });
  } catch {
    setView({ notice: signal.aborted ? WORDS.calledOff : WORDS.cannotRead(ref.name) });
  }
}
