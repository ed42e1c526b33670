import { describe, expect, it } from '@jest/globals';
import { FIGURES, applyMatrix, flattenPath } from '@core/geometry';
import type { FigureId } from '@core/geometry';
import { applyEdits, createLayer, parsePiece, resolveTimes } from '@core/piece';
import type { Layer, Piece } from '@core/piece';
import { prepareScene, sceneAt } from '@core/scene';
import { freeMoment } from '@core/time';
import { pieceWithSong } from '../../../tests/helpers/documents';

const span = { start: freeMoment(0), end: freeMoment(4) };
const values = { dimensions: [320, 200] as [number, number], rotation: 30, position: [40, -20] as [number, number] };
const shapes: readonly Layer[] = [
  createLayer(
    'rectangle',
    { name: 'R', ...span, content: { corners: [1, 0, 0.5, 1] }, values: { ...values, cornerRadius: 40 } },
    () => 's',
  ),
  createLayer('ellipse', { name: 'E', ...span, values }, () => 's'),
  ...(Object.keys(FIGURES) as FigureId[]).map((figure) =>
    createLayer('figure', { name: figure, ...span, content: { figure }, values: { ...values, points: 6 } }, () => 's'),
  ),
];

/** Where the outline lies in the frame, point by point. */
function outline(piece: Piece): number[] {
  const scene = prepareScene(piece, resolveTimes(piece, null), piece.leadFormatId);
  const [item] = sceneAt(scene, 1, () => ({ letters: [] }) as never).items;
  if (item?.kind !== 'shape') throw new Error('a shape is drawn as a shape');
  return flattenPath(item.path, 12).flatMap(({ points }) =>
    Array.from({ length: points.length / 2 }, (_, i) =>
      applyMatrix(item.matrix, points[2 * i]!, points[2 * i + 1]!),
    ).flat(),
  );
}

describe('turning a shape into points', () => {
  it.each(shapes.map((layer) => [layer.name, layer] as const))('%s keeps its outline', (_, layer) => {
    const piece: Piece = { ...pieceWithSong().piece, layers: [layer] };
    const { piece: after } = applyEdits(piece, [{ type: 'layer.toPath', id: 's' }], resolveTimes(piece, null));
    expect(after.layers[0]).toMatchObject({ kind: 'path', id: 's', name: layer.name });
    expect(parsePiece(JSON.parse(JSON.stringify(after)))).toMatchObject({ ok: true });
    const [before, now] = [outline(piece), outline(after)];
    const bounds = (of: number[], axis: number) => {
      const own = of.filter((__, i) => i % 2 === axis);
      return [Math.min(...own), Math.max(...own)];
    };
    for (const axis of [0, 1])
      bounds(now, axis).forEach((edge, i) => expect(Math.abs(edge - bounds(before, axis)[i]!)).toBeLessThan(0.1));
  });
  it('leaves words, pictures and locked shapes as they are', () => {
    const words = createLayer('text', { name: 'W', ...span, content: { text: 'x', family: 'syne' } }, () => 's');
    const locked = { ...shapes[0]!, locked: true };
    for (const layer of [words, locked]) {
      const piece: Piece = { ...pieceWithSong().piece, layers: [layer] };
      expect(applyEdits(piece, [{ type: 'layer.toPath', id: 's' }], resolveTimes(piece, null)).patches).toEqual([]);
    }
  });
});
