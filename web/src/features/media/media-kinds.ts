import { fetchAnalysis } from '../../platform/fetch-analysis';
import type { Edit, MediaKindId, MediaRef, Piece } from '@core/piece';
import { NEW_PIECE_SECONDS, createMusic } from '@core/piece';
import { freeMoment } from '@core/time';
import type { Moment, Seconds } from '@core/time';
import { ApiError, api, call } from '../../platform/api';
import { nextNewsOfMedia } from '../../platform/news';
import { edit, setAnalysis, useDesk } from '../../store/desk-store';
import { WORDS as FOOTAGE_WORDS } from '../footage/words';
import { addFootage, addPicture } from '../layers/add-layers';
import { rememberedFactor } from '../music/octave-memory';
import { WORDS } from './words';

/** What becomes of a file that was sent, by its kind. */
export interface MediaOnDesk {
  /** What a file chooser offers; the server looks at the file itself. */
  readonly accept: string;
  /** What the server is doing until the file is ready; null where it is ready at once. */
  readonly waiting: string | null;
  /** Puts it into the piece. @returns What to tell; null for nothing special. */
  readonly place: (media: MediaRef, how: Placing) => Promise<string | null> | string | null;
}

/** How a file comes into the piece. */
export interface Placing {
  readonly onProgress: (share: number) => void;
  readonly signal: AbortSignal;
  /** When it begins: where the playhead stood when it was dropped. */
  readonly at: Moment;
  /** Whether the piece that it was dropped on is no longer the open one: it then goes nowhere. */
  readonly isLeft: () => boolean;
}

const mediaState = (hash: string) => call(api.media[':hash'].$get({ param: { hash } }));

/** Length of a fresh piece cut to a song: short pieces are the rule. */
const FIRST_LENGTH = 30;

/**
 * Waits until the server has made of a file what it is played or painted with.
 * @returns the file with what is known of it by then.
 * @throws ApiError; an AbortError.
 */
export async function waitUntilReady(
  { hash, id, name }: MediaRef,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<{ readonly ref: MediaRef; readonly warning: string | null }> {
  for (;;) {
    const state = await mediaState(hash);
    if (state.state === 'ready') return { ref: { ...state.media, id, name }, warning: state.warning };
    if (state.state === 'failed') throw new ApiError('MEDIA_FAILED', state.error ?? WORDS.cannotBeRead);
    onProgress(state.progress);
    await nextNewsOfMedia(hash);
    if (signal.aborted) throw new DOMException('cancelled', 'AbortError');
  }
}

/**
 * How long the first song makes a piece; null where it stays as long as it is. One that holds something already, and
 * whose length nobody set, is only made longer: words are then laid on the music with room.
 */
function endForFirstSong({ music, layers, end }: Piece, duration: Seconds): Seconds | null {
  if (music) return null;
  const wanted = Math.min(duration, FIRST_LENGTH);
  if (layers.length === 0) return wanted;
  return end.kind === 'free' && end.seconds === NEW_PIECE_SECONDS && wanted > NEW_PIECE_SECONDS ? wanted : null;
}

/** A song becomes the music. */
async function placeSong(media: MediaRef, { onProgress, signal, isLeft }: Placing): Promise<string | null> {
  const { ref, warning } = await waitUntilReady(media, onProgress, signal);
  const analysis = await fetchAnalysis({ hash: media.hash, version: null });
  const { piece } = useDesk.getState();
  if (!piece || isLeft()) return null;
  const made = createMusic(ref, piece.music);
  const factor = rememberedFactor(piece, analysis);
  const music = { ...made, correction: { ...made.correction, factor } };
  const edits: Edit[] = [
    { type: 'media.add', media: ref },
    { type: 'music.set', music },
  ];
  const end = endForFirstSong(piece, analysis.duration);
  if (end !== null) edits.push({ type: 'piece.setEnd', end: freeMoment(end) });
  // Known before the edit, so that times are right at once.
  setAnalysis(ref.hash, analysis);
  edit(edits);
  return warning ?? (factor === 1 ? null : WORDS.tempoAsLastTime((analysis.bpm * factor).toFixed(0)));
}

/** A film goes up behind everything else. */
async function placeFootage(media: MediaRef, { onProgress, signal, at, isLeft }: Placing): Promise<string | null> {
  const { ref, warning } = await waitUntilReady(media, onProgress, signal);
  if (isLeft()) return null;
  addFootage(ref, at);
  return warning ?? (ref.footage?.hasSound ? FOOTAGE_WORDS.soundStays(media.name) : null);
}

/** A font joins the piece; it is put on by choosing it. */
function placeFont(media: MediaRef): string {
  const { piece } = useDesk.getState();
  if (piece && !piece.media.some((m) => m.hash === media.hash)) edit([{ type: 'media.add', media }]);
  return WORDS.isInChooseIt(media.font?.family ?? media.name, media.font?.style ?? '');
}

export const MEDIA_ON_DESK: Readonly<Record<MediaKindId, MediaOnDesk>> = {
  audio: {
    accept: 'audio/*,video/mp4,video/webm,.wav,.mp3,.ogg,.opus,.flac,.m4a,.aac,.aif,.aiff',
    waiting: WORDS.listeningForBeats,
    place: placeSong,
  },
  picture: {
    accept: 'image/png,image/jpeg,image/webp,image/gif,image/svg+xml,.svg',
    waiting: null,
    place: (media) => {
      addPicture(media);
      return null;
    },
  },
  footage: {
    accept: 'video/*,.mp4,.mov,.m4v,.webm,.mkv,.avi,.mpg,.ogv',
    waiting: FOOTAGE_WORDS.gettingReady,
    place: placeFootage,
  },
  // Made and taken in by the desk itself (features/within), not by people.
  piece: { accept: '.json', waiting: null, place: () => WORDS.thisIsAPieceWithin },
  font: { accept: '.ttf,.otf,.woff,.woff2', waiting: null, place: placeFont },
};
