import { useEffect, useMemo, useState } from 'react';
import { NO_DRESS, ancestorsOf, byId } from '@core/piece';
import type { Piece, ResolvedTimes, TextLayer } from '@core/piece';
import { prepareScene, sceneAt } from '@core/scene';
import type { LayoutText } from '@core/scene';
import { createLayoutCache } from '@core/text';
import type { Seconds } from '@core/time';
import { loadedFonts } from '../../platform/browser-host';

/**
 * Where words that fill a place of the frame stand, and how large they came out, in pixels of the format. Null until
 * their fonts are there, and for other words.
 */
export function useFittedPlace(
  piece: Piece,
  times: ResolvedTimes,
  layer: TextLayer | undefined,
  formatId: string,
  seconds: Seconds,
): { left: number; top: number; width: number; height: number; size: number } | null {
  const [layout, setLayout] = useState<LayoutText | null>(null);
  const isFitted = layer?.content.area != null;
  useEffect(() => {
    if (!isFitted) return;
    let isCurrent = true;
    void loadedFonts(piece).then((fonts) => {
      if (isCurrent) setLayout(() => createLayoutCache(fonts));
    });
    return () => {
      isCurrent = false;
    };
  }, [isFitted, piece]);
  return useMemo(() => {
    if (!layout || !layer || !isFitted) return null;
    const still: TextLayer = {
      ...layer,
      gestures: [],
      trail: null,
      motionBlur: 'off',
      content: {
        ...layer.content,
        dress: NO_DRESS,
        spans: layer.content.spans.map(({ colour: _colour, ...span }) => span),
      },
    };
    const at = Math.min(Math.max(seconds, times.timeOf(layer.start)), times.timeOf(layer.end) - 1e-3);
    const layers = [still, ...ancestorsOf(byId(piece.layers), layer.id)];
    let item = sceneAt(prepareScene({ ...piece, layers, transitions: [] }, times, formatId), at, layout).items[0];
    while (item?.kind === 'group' && item.holds === 'layers') item = item.children[0];
    if (!item) return null;
    const [l, t, r, b] = item.box;
    const [sx, , , sy, x, y] = item.matrix;
    return { left: x + l * sx, top: y + t * sy, width: (r - l) * sx, height: (b - t) * sy, size: sy * 1000 };
  }, [layout, layer, isFitted, piece, times, formatId, seconds]);
}
