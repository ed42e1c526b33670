import { ANALYSIS_VERSION } from '@core/audio';
import type { SongAnalysis } from '@core/audio';
import { ApiError, api, call } from '../../platform/api';
import { fetchAnalysis } from '../../platform/fetch-analysis';
import { nextNewsOfMedia } from '../../platform/news';
import { WORDS } from './words';

/** Why nobody waits any more although it goes on: what is found is there when it is asked for again. */
export const LEFT = 'left';

/**
 * Has a song listened to by this version's method, beside what was found in it before.
 * @param hash - of the song.
 * @param signal - calls it off, and the listening with it unless its reason is {@link LEFT}.
 * @throws ApiError; an AbortError when it was called off.
 */
export async function hearAnew(
  hash: string,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<SongAnalysis> {
  const { hearing } = api.media[':hash'];
  let state = await call(hearing.$post({ param: { hash } }));
  while (!state.isDone) {
    if (state.jobId === null) throw new ApiError('AUDIO_UNREADABLE', state.error ?? WORDS.couldNotBeHeardAnew);
    onProgress(state.progress ?? 0);
    await nextNewsOfMedia(hash);
    if (signal.aborted) {
      if (signal.reason !== LEFT)
        await call(api.jobs[':id'].cancel.$post({ param: { id: state.jobId } })).catch(() => {}); // over by now
      throw new DOMException('cancelled', 'AbortError');
    }
    state = await call(hearing.$get({ param: { hash } }));
  }
  return fetchAnalysis({ hash, version: ANALYSIS_VERSION });
}
