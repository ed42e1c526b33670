import { Dialog, Portal } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { ApiError } from '../../platform/api';
import { playhead } from '../../platform/clock';
import { newId } from '../../platform/ids';
import { stop } from '../../platform/playback';
import { closePiece, setView, useDesk } from '../../store/desk-store';
import { loadPiece, resolveConflict, startSaving } from '../../store/saving';
import { Desk } from './Desk';
import { warmSound } from './play-commands';

/** Opens a piece and keeps it saved while it is on the desk. */
export function DeskPage() {
  const { id = '' } = useParams();
  const navigate = useNavigate();
  const [problem, setProblem] = useState<string | null>(null);
  const isOpen = useDesk((s) => s.piece?.id === id);
  const music = useDesk((s) => s.piece?.music?.mediaId);
  const saveState = useDesk((s) => s.saveState);
  const saveMessage = useDesk((s) => s.saveMessage);

  useEffect(() => {
    setProblem(null);
    playhead.set(0);
    loadPiece(id).catch((error: unknown) => setProblem(error instanceof ApiError ? error.message : 'The piece could not be opened.'));
    const stopSaving = startSaving();
    return () => {
      stop();
      stopSaving();
      closePiece();
    };
  }, [id]);
  useEffect(() => {
    if (music) void warmSound();
  }, [music]);

  if (problem) return <main className="home"><h1 style={{ fontSize: 20 }}>{problem}</h1><Link to="/" style={{ color: 'var(--lamp)' }}>To all pieces</Link></main>;
  if (!isOpen) return <main className="home"><p className="muted">Opening …</p></main>;
  const choose = (choice: 'mine' | 'theirs' | 'copy') => void resolveConflict(choice, newId).then((copyId) => copyId && navigate(`/piece/${copyId}`)).catch((error: unknown) => setView({ notice: error instanceof ApiError ? error.message : 'That did not work; try again.' }));
  return (
    <>
      <Desk />
      <Dialog.Root open={saveState === 'conflict'} role="alertdialog" closeOnEscape={false} closeOnInteractOutside={false}>
        <Portal>
          <Dialog.Backdrop />
          <Dialog.Positioner>
            <Dialog.Content>
              <Dialog.Body p="6">
                <h2 style={{ fontSize: 17, fontWeight: 600, margin: '0 0 8px' }}>Two versions of this piece</h2>
                <p className="muted">{saveMessage} Nothing has been overwritten. Which one goes on?</p>
                <div style={{ display: 'grid', gap: 8, marginTop: 16, justifyItems: 'start' }}>
                  <button className="lamp" onClick={() => choose('copy')}>Keep both: mine as a new piece</button>
                  <button className="soft" onClick={() => choose('mine')}>Go on with mine (the other stays among the revisions)</button>
                  <button className="soft" onClick={() => choose('theirs')}>Take the other, drop mine</button>
                </div>
              </Dialog.Body>
            </Dialog.Content>
          </Dialog.Positioner>
        </Portal>
      </Dialog.Root>
    </>
  );
}
