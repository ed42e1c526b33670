import { fetchAnalysis } from '../../platform/fetch-analysis';
import { Box, Dialog, Portal } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { useLocation, useNavigate, useParams } from 'react-router';
import { saidBy } from '../../platform/api';
import { playhead } from '../../platform/clock';
import { stop } from '../../platform/playback';
import { closePiece, setView, useDesk } from '../../store/desk-store';
import { rememberView } from '../../store/view-memory';
import { browserClock } from '../../saving/clock';
import { keepSaved, loadPiece, resolveConflict, settleLeftover } from '../../saving/browser-session';
import { followSong } from '../../store/follow-song';
import { Desk } from './Desk';
import { DeskBoundary, WaysOut } from './DeskBoundary';
import { warmSound } from './play-commands';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

/** Opens a piece and keeps it saved while it is on the desk. */
export function DeskPage() {
  const { id = '' } = useParams();
  const goToCopy = useGoToCopy();
  const [problem, setProblem] = useState<string | null>(null);
  const [visit, setVisit] = useState(0);
  const isOpen = useDesk((s) => s.piece?.id === id);
  const music = useDesk((s) => s.piece?.music?.mediaId);
  const saveState = useDesk((s) => s.saveState);
  const saveMessage = useDesk((s) => s.saveMessage);
  useTemplatesAtFirst(isOpen);

  useEffect(() => {
    setProblem(null);
    playhead.set(0);
    let isLeft = false;
    const stopRemembering = rememberView(id);
    loadPiece(id).catch((error: unknown) => !isLeft && setProblem(saidBy(error, WORDS.thePieceCouldNot)));
    const stopSaving = keepSaved(id);
    const stopFollowing = followSong(fetchAnalysis, browserClock);
    return () => {
      isLeft = true;
      stop();
      stopRemembering();
      stopFollowing();
      stopSaving();
      closePiece();
    };
  }, [id, visit]);
  useEffect(() => {
    if (music) void warmSound();
  }, [music]);

  if (problem)
    return (
      <main className="home">
        <h1 className="title">{problem}</h1>
        <WaysOut pieceId={id} onTry={() => setVisit(visit + 1)} />
      </main>
    );
  if (!isOpen)
    return (
      <main className="home">
        <p className="muted">{WORDS.opening}</p>
      </main>
    );
  const choose = (choice: 'mine' | 'theirs' | 'copy') => goToCopy(resolveConflict(choice));
  return (
    <>
      <DeskBoundary key={id} pieceId={id}>
        <Desk />
      </DeskBoundary>
      <Dialog.Root
        open={saveState === 'conflict'}
        role="alertdialog"
        closeOnEscape={false}
        closeOnInteractOutside={false}
      >
        <Portal>
          <Dialog.Backdrop />
          <Dialog.Positioner>
            <Dialog.Content>
              <Dialog.Body p="6">
                <Box as="h2" fontSize="17px" fontWeight="600" margin="0 0 8px">
                  {WORDS.twoVersionsOfThis}
                </Box>
                <p className="muted">
                  {saveMessage}
                  {WORDS.nothingHasBeenOverwritten}
                </p>
                <Box display="grid" gap="8px" marginTop="16px" justifyItems="start">
                  <Button variant="lamp" onClick={() => choose('copy')}>
                    {WORDS.keepBothMineAs}
                  </Button>
                  <Button variant="soft" onClick={() => choose('mine')}>
                    {WORDS.goOnWithMine}
                  </Button>
                  <Button variant="soft" onClick={() => choose('theirs')}>
                    {WORDS.takeTheOtherDrop}
                  </Button>
                </Box>
              </Dialog.Body>
            </Dialog.Content>
          </Dialog.Positioner>
        </Portal>
      </Dialog.Root>
      <Leftovers />
    </>
  );
}

/** A new piece that is to begin with a template shows them once. */
function useTemplatesAtFirst(isOpen: boolean): void {
  const navigate = useNavigate();
  const { state, pathname } = useLocation() as { state: { withTemplate?: unknown } | null; pathname: string }; // set by the home
  const isWanted = state?.withTemplate === true;
  useEffect(() => {
    if (!isWanted || !isOpen) return;
    setView({ templateDialog: 'gallery' });
    void navigate(pathname, { replace: true, state: null });
  }, [isWanted, isOpen, navigate, pathname]);
}

/** Goes to the piece that a choice between versions made, if it made one; what goes wrong is told. */
function useGoToCopy(): (choice: Promise<string | null>) => void {
  const navigate = useNavigate();
  return (choice) =>
    void choice
      .then((copyId) => copyId && navigate(`/piece/${copyId}`))
      .catch((error: unknown) => setView({ notice: saidBy(error, WORDS.thatDidNotWork) }));
}

/** Edits of closed tabs that could not be sent: kept as pieces of their own, or let go. */
function Leftovers() {
  const leftovers = useDesk((s) => s.leftovers);
  const goToCopy = useGoToCopy();
  const settle = (work: (typeof leftovers)[number], choice: 'keep' | 'drop') => goToCopy(settleLeftover(work, choice));
  return (
    <Dialog.Root open={leftovers.length > 0} onOpenChange={({ open }) => !open && setView({ leftovers: [] })}>
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content>
            <Dialog.Body p="6">
              <h2 className="title">{WORDS.editsFromAClosed}</h2>
              <p className="muted wide-gap">{WORDS.theyWereNeverSent}</p>
              {leftovers.map((work) => (
                <div
                  key={work.tabId}
                  className="list-row"
                  role="group"
                  aria-label={WORDS.editsOf(new Date(work.at).toLocaleString())}
                >
                  <span>{WORDS.last(new Date(work.at).toLocaleString(), work.label)}</span>
                  <Button onClick={() => settle(work, 'keep')}>{WORDS.keepAsANew}</Button>
                  <Button variant="quiet" onClick={() => settle(work, 'drop')}>
                    {WORDS.letThemGo}
                  </Button>
                </div>
              ))}
            </Dialog.Body>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
