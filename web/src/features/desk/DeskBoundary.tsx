import { Heading, Link as PlainLink, Stack, Text } from '@chakra-ui/react';
import { Component, useState } from 'react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { api, call, saidBy } from '../../platform/api';
import { receivedPiece } from '../../platform/received-piece';
import { replaceDocument, undoEdit, useDesk } from '../../store/desk-store';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

type Revision = { revision: number; label: string; createdAt: string };

/** What a person can do about a piece that cannot be shown or opened: nothing here needs the desk to work. */
export function WaysOut({ pieceId, onTry }: { pieceId: string; onTry: () => void }) {
  const isOpen = useDesk((s) => s.piece?.id === pieceId);
  const history = useDesk((s) => s.history);
  const [revisions, setRevisions] = useState<readonly Revision[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const attempt = (work: () => Promise<void>) => {
    setProblem(null);
    work().catch((error: unknown) => setProblem(saidBy(error, WORDS.thatDidNotWork)));
  };
  const list = () =>
    attempt(async () =>
      setRevisions((await call(api.pieces[':id'].revisions.$get({ param: { id: pieceId } }))).revisions),
    );
  const restore = (revision: number) =>
    attempt(async () => {
      const param = { id: pieceId, revision: String(revision) };
      // On the desk it is a step that can be undone; a piece that isn't there is put right where it is stored.
      if (isOpen)
        replaceDocument(
          receivedPiece((await call(api.pieces[':id'].revisions[':revision'].$get({ param }))).piece),
          WORDS.bringBackRevision(revision),
        );
      else await call(api.pieces[':id'].revisions[':revision'].restore.$post({ param }));
      onTry();
    });
  const undoLast = () => {
    undoEdit();
    onTry();
  };
  const last = isOpen ? history.done[history.done.length - 1] : undefined;
  return (
    <Stack gap="3" align="start">
      {last && (
        <Button variant="lamp" onClick={undoLast}>
          {WORDS.undoLabel(last.label)}
        </Button>
      )}
      <Button variant="soft" onClick={onTry}>
        {WORDS.tryAgain}
      </Button>
      <Button variant="soft" onClick={list}>
        {WORDS.earlierRevisions}
      </Button>
      {revisions?.slice(0, 12).map((r) => (
        <Button key={r.revision} variant="quiet" onClick={() => restore(r.revision)}>
          {WORDS.revision(r.revision, r.label, new Date(r.createdAt).toLocaleString())}
        </Button>
      ))}
      {isOpen && (
        <PlainLink href={`/api/pieces/${pieceId}/file`} download>
          {WORDS.keepThePieceAs}
        </PlainLink>
      )}
      <Link to="/">{WORDS.toAllPieces}</Link>
      {problem && (
        <Text role="alert" color="var(--ember)">
          {problem}
        </Text>
      )}
    </Stack>
  );
}

interface State {
  readonly error: Error | null;
}

/** Stands around the desk: a fault in showing a piece must not shut a person out of it. */
export class DeskBoundary extends Component<{ pieceId: string; children: ReactNode }, State> {
  override state: State = { error: null };

  static getDerivedStateFromError(error: unknown): State {
    return { error: error instanceof Error ? error : new Error(String(error)) };
  }

  override render() {
    const { error } = this.state;
    if (!error) return this.props.children;
    return (
      <main className="home" aria-label={WORDS.thisPieceCannotBeShown}>
        <Heading as="h1" fontSize="20px" mb="2">
          {WORDS.thisPieceCannotBe}
        </Heading>
        <Text className="muted" mb="5">
          {WORDS.yourWorkIsKept(error.message.slice(0, 200))}
        </Text>
        <WaysOut pieceId={this.props.pieceId} onTry={() => this.setState({ error: null })} />
      </main>
    );
  }
}
