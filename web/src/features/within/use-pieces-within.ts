import { useEffect } from 'react';
import { onNews } from '../../platform/news';
import { usePiece } from '../../store/selectors';
import { renewPiece } from './within-commands';

/** After news of a piece its other news are waited for so long. */
const SETTLE_MS = 1500;

/** Keeps pieces within the open one as they are: looked at when the desk opens, and when one of them is saved. */
export function usePiecesWithin(): void {
  const ids = usePiece()
    .layers.flatMap((layer) => (layer.kind === 'piece' ? [layer.content.pieceId] : []))
    .sort()
    .join('|');
  useEffect(() => {
    if (ids === '') return undefined;
    const wanted = [...new Set(ids.split('|'))];
    for (const id of wanted) void renewPiece(id, false);
    const timers = new Map<string, ReturnType<typeof setTimeout>>();
    const stop = onNews(
      (news) => {
        if (news.topic !== 'piece' || !wanted.includes(news.id)) return;
        clearTimeout(timers.get(news.id));
        timers.set(
          news.id,
          setTimeout(() => void renewPiece(news.id, false), SETTLE_MS),
        );
      },
      () => {
        for (const id of wanted) void renewPiece(id, false);
      },
    );
    return () => {
      stop();
      for (const timer of timers.values()) clearTimeout(timer);
    };
  }, [ids]);
}
