import type { SongAnalysis } from '@core/audio';
import type { Clock } from '../saving/clock';
import { setAnalysis, useDesk } from './desk-store';
import { knownAnalysis, songHash } from './song-analyses';

const AGAIN_AFTER_MS = 1000;
const LONGEST_PAUSE_MS = 15_000;

/**
 * Fetches what was found in the song of the piece on the desk, whenever another song becomes its song. A song that is
 * not listened to yet (the demo's first start, an opened piece file) is asked for again, at growing intervals.
 * @param fetchAnalysis - rejects while there is none. @returns What stops following.
 */
export function followSong(fetchAnalysis: (hash: string) => Promise<SongAnalysis>, clock: Clock): () => void {
  let wanted: string | null = null;
  let callOff = () => {};
  const ask = (hash: string, pause: number) => {
    fetchAnalysis(hash).then(
      (analysis) => setAnalysis(hash, analysis),
      () => {
        if (wanted === hash) callOff = clock.after(pause, () => ask(hash, Math.min(LONGEST_PAUSE_MS, pause * 1.5)));
      },
    );
  };
  const look = () => {
    const { piece } = useDesk.getState();
    const hash = piece ? songHash(piece) : null;
    if (hash === wanted) return;
    callOff();
    wanted = hash;
    if (hash && !knownAnalysis(hash)) ask(hash, AGAIN_AFTER_MS);
  };
  look();
  const stop = useDesk.subscribe((state, before) => {
    if (state.piece !== before.piece) look();
  });
  return () => {
    wanted = null;
    callOff();
    stop();
  };
}
