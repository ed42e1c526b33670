import type { SongAnalysis } from '@core/audio';
import type { Clock } from '../saving/clock';
import { setAnalysis, useDesk } from './desk-store';
import { analysisName, knownAnalysis, timedBy } from './song-analyses';

type Timed = NonNullable<ReturnType<typeof timedBy>>;

const AGAIN_AFTER_MS = 1000;
const LONGEST_PAUSE_MS = 15_000;

/**
 * Fetches what was found in the song of the piece on the desk, whenever another song becomes its song. A song that is
 * not listened to yet (the demo's first start, an opened piece file) is asked for again, at growing intervals.
 * @param fetchAnalysis - rejects while there is none. @returns What stops following.
 */
export function followSong(
  fetchAnalysis: (hash: string, version: number | null) => Promise<SongAnalysis>,
  clock: Clock,
): () => void {
  let wanted: string | null = null;
  let callOff = () => {};
  const ask = (timed: Timed, pause: number) => {
    const name = analysisName(timed.hash, timed.version);
    fetchAnalysis(timed.hash, timed.version).then(
      (analysis) => setAnalysis(name, analysis),
      () => {
        if (wanted === name) callOff = clock.after(pause, () => ask(timed, Math.min(LONGEST_PAUSE_MS, pause * 1.5)));
      },
    );
  };
  const look = () => {
    const { piece } = useDesk.getState();
    const timed = piece && timedBy(piece);
    const name = timed && analysisName(timed.hash, timed.version);
    if (name === wanted) return;
    callOff();
    wanted = name;
    if (timed && name && !knownAnalysis(name)) ask(timed, AGAIN_AFTER_MS);
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
