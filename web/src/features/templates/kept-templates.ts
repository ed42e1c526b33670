import { parsePiece } from '@core/piece';
import type { Piece } from '@core/piece';
import { api, call, upload } from '../../platform/api';

/** Templates kept for all pieces, on the server; the newest first. */
export async function keptTemplates(): Promise<readonly Piece[]> {
  const { templates } = await call(api.kept.templates.$get());
  return templates.flatMap((document) => {
    const parsed = parsePiece(document);
    return parsed.ok && parsed.piece.template ? [parsed.piece] : [];
  });
}

/** Keeps a template by its name: one of that name becomes its next version. */
export const keepTemplate = (piece: Piece): Promise<{ id: string; version: number }> =>
  call(api.kept.templates.$post({ json: { piece } }));

export async function forgetTemplate(id: string): Promise<readonly Piece[]> {
  await call(api.kept.templates[':id'].$delete({ param: { id } }));
  return keptTemplates();
}

export const templateFile = (id: string): string => `/api/kept/templates/${id}/file`;

/** Keeps the template that a file holds. */
export async function openTemplateFile(file: File): Promise<readonly Piece[]> {
  await upload('/api/kept/templates/import', file, () => {});
  return keptTemplates();
}
