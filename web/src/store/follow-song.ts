import type { SongAnalysis } from '@core/audio';
import { timedBy } from '@core/piece';
import type { Timing } from '@core/piece';
import type { Clock } from '../saving/clock';
import { setAnalysis, useDesk } from './desk-store';
import { analysisName, knownAnalysis } from './song-analyses';

const AGAIN_AFTER_MS = 1000;
const LONGEST_PAUSE_MS = 15_000;

/**
 * Fetches what was found in the song of the piece on the desk, whenever another song becomes its song. A song that is
 * not listened to yet (the demo's first start, an opened piece file) is asked for again, at growing intervals.
 * @param fetchAnalysis - rejects while there is none. @returns What stops following.
 */
export function followSong(fetchAnalysis: (timing: Timing) => Promise<SongAnalysis>, clock: Clock): () => void {
  let wanted: string | null = null;
  let callOff = () => {};
  const ask = (timed: Timing, pause: number) => {
    const name = analysisName(timed);
    fetchAnalysis(timed).then(
      (analysis) => setAnalysis(name, analysis),
      () => {
        if (wanted === name) callOff = clock.after(pause, () => ask(timed, Math.min(LONGEST_PAUSE_MS, pause * 1.5)));
      },
    );
  };
  const look = () => {
    const { piece } = useDesk.getState();
    const timed = piece && timedBy(piece);
    const name = timed && analysisName(timed);
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
