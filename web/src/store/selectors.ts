import type { SongAnalysis } from '@core/audio';
import type { Layer, Piece, ResolvedTimes } from '@core/piece';
import { useDesk } from './desk-store';

/** The piece on the desk. Only for components below the desk, which is shown once a piece is open. */
export function usePiece(): Piece {
  const piece = useDesk((s) => s.piece);
  if (!piece) throw new Error('no piece on the desk');
  return piece;
}

export function useTimes(): ResolvedTimes {
  const times = useDesk((s) => s.times);
  if (!times) throw new Error('no piece on the desk');
  return times;
}

export const useAnalysis = (): SongAnalysis | null => useDesk((s) => s.analysis);

export function useSelectedLayer(): Layer | null {
  const piece = usePiece();
  const [id] = useDesk((s) => s.selectedLayers);
  return piece.layers.find((layer) => layer.id === id) ?? null;
}
