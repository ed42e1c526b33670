import { createMusic } from '@core/piece';
import type { Edit, MediaRef } from '@core/piece';
import { freeMoment } from '@core/time';
import { ApiError, api, call } from '../../platform/api';
import { nextNews } from '../../platform/news';
import { uploadMedia } from '../../platform/upload-media';
import { edit, setAnalysis, setView, useDesk } from '../../store/desk-store';
import { addPicture } from '../desk/commands';

export interface ImportProgress {
  readonly name: string;
  readonly stage: 'sending' | 'listening';
  readonly share: number;
}

type Prepared = Awaited<ReturnType<typeof mediaState>>;
const mediaState = (hash: string) => call(api.media[':hash'].$get({ param: { hash } }));

/** Length of a fresh piece cut to a song: short pieces are the rule. */
const FIRST_LENGTH = 30;

/** News may be missed; then the state is asked for after so long. */
const ASK_AGAIN_MS = 2000;

async function waitUntilReady(
  hash: string,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<Prepared> {
  for (;;) {
    const state = await mediaState(hash);
    if (state.state === 'ready') return state;
    if (state.state === 'failed') throw new ApiError('AUDIO_UNREADABLE', state.error ?? 'The song cannot be read.');
    onProgress(state.progress);
    await nextNews((news) => news.topic === 'job' || (news.topic === 'media' && news.id === hash), ASK_AGAIN_MS);
    if (signal.aborted) throw new DOMException('cancelled', 'AbortError');
  }
}

async function bringInSong(
  media: MediaRef,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<string | null> {
  const ready = await waitUntilReady(media.hash, onProgress, signal);
  const analysis = await call(api.media[':hash'].analysis.$get({ param: { hash: media.hash } }));
  const { piece } = useDesk.getState();
  if (!piece) return null;
  const ref = { ...ready.media, id: media.id, name: media.name };
  // A new song keeps where and how loud the old one played, but no corrections: those were the old song's.
  const music = piece.music
    ? { ...createMusic(ref), start: piece.music.start, volume: piece.music.volume }
    : createMusic(ref);
  const edits: Edit[] = [
    { type: 'media.add', media: ref },
    { type: 'music.set', music },
  ];
  if (piece.layers.length === 0 && !piece.music)
    edits.push({ type: 'piece.setEnd', end: freeMoment(Math.min(analysis.duration, FIRST_LENGTH)) });
  // Known before the edit, so that times are right at once.
  setAnalysis(ref.hash, analysis);
  edit(edits);
  return ready.warning;
}

const KIND_WORDS = { audio: 'song', picture: 'picture', font: 'font' } as const satisfies Record<
  MediaRef['kind'],
  string
>;

/** A font joins the piece; it is put on by choosing it. */
function bringInFont(media: MediaRef): string {
  const { piece } = useDesk.getState();
  if (piece && !piece.media.some((m) => m.hash === media.hash)) edit([{ type: 'media.add', media }]);
  return `${media.font?.family ?? media.name} ${media.font?.style ?? ''} is in; choose it as a face under Yours`;
}

/**
 * Takes a dropped or picked file in: a song becomes the music, a picture a layer, a font a face to choose. What goes
 * wrong is shown and changes nothing. @param wanted - what the drop place takes.
 */
export async function importFile(
  file: File,
  wanted: MediaRef['kind'] | 'any',
  onProgress: (progress: ImportProgress | null) => void,
  signal: AbortSignal,
): Promise<void> {
  try {
    onProgress({ name: file.name, stage: 'sending', share: 0 });
    const sent = await uploadMedia(file, (share) => onProgress({ name: file.name, stage: 'sending', share }), signal);
    if (wanted !== 'any' && sent.media.kind !== wanted)
      throw new ApiError(
        'FILE_UNKNOWN',
        `“${file.name}” is a ${KIND_WORDS[sent.media.kind]}; here a ${KIND_WORDS[wanted]} is wanted. Nothing was changed.`,
      );
    let warning = sent.warning;
    if (sent.media.kind === 'audio') {
      onProgress({ name: file.name, stage: 'listening', share: 0 });
      warning = await bringInSong(
        sent.media,
        (share) => onProgress({ name: file.name, stage: 'listening', share }),
        signal,
      );
    } else if (sent.media.kind === 'font') warning = bringInFont(sent.media);
    else addPicture(sent.media);
    setView({ notice: warning ?? `${file.name} is in` });
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') setView({ notice: `${file.name} was left out` });
    else
      setView({
        notice:
          error instanceof ApiError ? error.message : `${file.name} could not be brought in. Nothing was changed.`,
      });
  } finally {
    onProgress(null);
  }
}
