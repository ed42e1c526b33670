import { MEDIA_KINDS } from '@core/piece';
import type { MediaKindId } from '@core/piece';
import type { Moment } from '@core/time';
import { ApiError, saidBy } from '../../platform/api';
import { uploadMedia } from '../../platform/upload-media';
import { setView, useDesk } from '../../store/desk-store';
import { newSpan } from '../layers/add-layers';
import { isSvg, takeLogo } from '../logo/take-logo';
import { MEDIA_ON_DESK } from '../media/media-kinds';
import { WORDS } from './words';

export interface ImportProgress {
  readonly name: string;
  /** What is being done, for people. */
  readonly stage: string;
  readonly share: number;
}

/** Where a file was dropped. */
export interface ImportPlace {
  /** When it begins in the piece. */
  readonly at: Moment;
  /** The piece that was open. */
  readonly pieceId: string | null;
}
/** Here and now: at the playhead of the piece that is open. */
export const importPlace = (): ImportPlace => ({ at: newSpan().start, pieceId: useDesk.getState().piece?.id ?? null });

/**
 * Takes a dropped or picked file in: what becomes of it is its kind's matter. What goes wrong is shown and changes
 * nothing. A file whose piece was left meanwhile stays with the server and goes into no other piece.
 * @param wanted - what the place it was dropped on takes.
 */
export async function importFile(
  file: File,
  wanted: readonly MediaKindId[] | 'any',
  onProgress: (progress: ImportProgress | null) => void,
  signal: AbortSignal,
  { at, pieceId }: ImportPlace = importPlace(),
): Promise<void> {
  if (isSvg(file) && (wanted === 'any' || wanted.includes('picture'))) return takeLogo(file);
  const [first, ...others] = wanted === 'any' ? [] : wanted;
  const as = first !== undefined && others.length === 0 ? first : 'any';
  const tell = (stage: string) => (share: number) => onProgress({ name: file.name, stage, share });
  try {
    tell(WORDS.sending)(0);
    const { media, warning } = await uploadMedia(file, as, tell(WORDS.sending), signal);
    if (wanted !== 'any' && !wanted.includes(media.kind))
      throw new ApiError(
        'FILE_UNKNOWN',
        `“${file.name}” is a ${MEDIA_KINDS[media.kind].label}; here a ${wanted.map((kind) => MEDIA_KINDS[kind].label).join(' or ')} is wanted. Nothing was changed.`,
      );
    const { waiting, place } = MEDIA_ON_DESK[media.kind];
    const onWait = tell(waiting ?? WORDS.sending);
    if (waiting !== null) onWait(0);
    const isLeft = (): boolean => useDesk.getState().piece?.id !== pieceId;
    if (isLeft()) return setView({ notice: WORDS.pieceWasLeft(file.name) });
    const told = await place(media, { onProgress: onWait, signal, at, isLeft });
    if (isLeft()) return setView({ notice: WORDS.pieceWasLeft(file.name) });
    setView({ notice: told ?? warning ?? WORDS.isIn(file.name) });
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') setView({ notice: WORDS.wasLeftOut(file.name) });
    else setView({ notice: saidBy(error, WORDS.couldNotBeBrought(file.name)) });
  } finally {
    onProgress(null);
  }
}
