import { EXPORT_KINDS, EXPORT_KIND_IDS } from '@core/formats';
import type { ExportKindId } from '@core/formats';
import type { Lane } from '../db/entities';
import { MAX_NAME_BYTES, cutToBytes } from '../platform/file-names';

/** Of an export; jobs of earlier versions made videos. */
export const exportKindOf = (job: { readonly payload: Readonly<Record<string, unknown>> }): ExportKindId =>
  EXPORT_KIND_IDS.find((id) => id === job.payload.kind) ?? 'mp4';

/** Kinds that are made in a moment: one frame, sound alone, or a list of times. */
const QUICK: ReadonlySet<ExportKindId> = new Set<ExportKindId>([
  ...(['png', 'jpeg', 'webp', 'svg', 'wav', 'mp3', 'm4a', 'opus'] as const),
  ...(['srt', 'vtt', 'markers-csv', 'midi-tempo', 'otio'] as const),
]);

/** The lane of an export: what is made in a moment waits for no film. */
export const laneOf = (kind: ExportKindId): Lane => (QUICK.has(kind) ? 'quick' : 'export');

/** What the file of an export is called, without its extension. */
export function fileNameOf(job: { readonly payload: Readonly<Record<string, unknown>> }): string {
  const { payload } = job;
  if (typeof payload.fileName === 'string') return cutToBytes(payload.fileName, MAX_NAME_BYTES);
  // validated when the job was made
  const document = payload.document as { name: string; formats: { id: string; name: string }[] };
  const format = document.formats.find((f) => f.id === payload.formatId);
  const name = `${document.name} ${EXPORT_KINDS[exportKindOf(job)].isFormatless ? '' : (format?.name ?? '')}`
    .replace(/[^\p{L}\p{N} _-]/gu, '')
    .trim();
  return cutToBytes(name, MAX_NAME_BYTES);
}
