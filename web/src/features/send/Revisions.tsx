import { Box, Span } from '@chakra-ui/react';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { RotateCcw } from 'lucide-react';
import { useState } from 'react';
import { api, call } from '../../platform/api';
import { receivedPiece } from '../../platform/received-piece';
import { saveNow } from '../../saving/browser-session';
import { replaceDocument, setView, useDesk } from '../../store/desk-store';
import { usePiece } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

/** What the piece was before, to be brought back. */
export function Revisions({ attempt }: { attempt: (work: () => Promise<unknown>) => Promise<void> }) {
  const piece = usePiece();
  const queries = useQueryClient();
  const [isShown, setShown] = useState(false);
  const revisions = useQuery({
    queryKey: ['revisions', piece.id, useDesk.getState().revision],
    enabled: isShown,
    queryFn: () => call(api.pieces[':id'].revisions.$get({ param: { id: piece.id } })).then((r) => r.revisions),
  });
  const restore = (revision: number) =>
    attempt(async () => {
      await saveNow();
      const { piece: old } = await call(
        api.pieces[':id'].revisions[':revision'].$get({ param: { id: piece.id, revision: String(revision) } }),
      );
      // Restoring is an edit like any other: the revision list only grows, and undo leads back.
      replaceDocument(receivedPiece(old), WORDS.bringBackRevision(revision));
      setView({ notice: WORDS.revisionIsBack(revision) });
      await saveNow();
      await queries.invalidateQueries({ queryKey: ['revisions', piece.id] });
    });
  return (
    <>
      <Button variant="quiet" aria-expanded={isShown} onClick={() => setShown(!isShown)}>
        <RotateCcw size={15} />
        {WORDS.earlierRevisions}
      </Button>
      {isShown &&
        revisions.data?.map((r) => (
          <Box key={r.revision} className="prop" gridTemplateColumns="1fr auto">
            <Span overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
              <span className="mono muted">{r.revision}</span> {r.label}{' '}
              <Span className="muted" fontSize="11.5px">
                {new Date(r.createdAt).toLocaleTimeString()}
              </Span>
            </Span>
            <Button
              variant="quiet"
              aria-label={WORDS.bringBackRevision(r.revision)}
              onClick={() => void restore(r.revision)}
            >
              {WORDS.bringBack}
            </Button>
          </Box>
        ))}
    </>
  );
}
