import type { SongAnalysis } from '@core/audio';
import type { Timing } from '@core/piece';
import { api, call } from './api';

/** What a method of analysis found in a song; null is the one it was first heard by. @throws ApiError. */
export const fetchAnalysis = ({ hash, version }: Timing): Promise<SongAnalysis> =>
  call(
    api.media[':hash'].analysis.$get({ param: { hash }, query: version === null ? {} : { version: String(version) } }),
  );
