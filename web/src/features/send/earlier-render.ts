import type { ExportKindId, ExportSettings, MadeFile } from '@core/formats';
import type { ExportJob } from './use-exports';

/** How a file is asked for. */
export interface AskedFile {
  readonly kind: ExportKindId;
  readonly settings: ExportSettings;
  readonly layerIds: readonly string[] | null;
  readonly formatId: string;
}

/**
 * The last file of a piece that was made in the same way, in the same format if there is one; null for none.
 * @param jobs - the renders of the piece, the newest first.
 */
export function earlierRender(jobs: readonly ExportJob[], asked: AskedFile): MadeFile | null {
  const way = JSON.stringify([asked.settings, asked.layerIds]);
  const alike = jobs.filter(
    ({ state, exportKind, what }) =>
      state === 'succeeded' && exportKind === asked.kind && JSON.stringify([what?.settings, what?.layerIds]) === way,
  );
  for (const { made } of [...alike.filter((job) => job.formatId === asked.formatId), ...alike]) {
    const { width, height, frames, bytes } = made ?? {};
    if (width && height && frames && bytes) return { width, height, frames, bytes };
  }
  return null;
}
