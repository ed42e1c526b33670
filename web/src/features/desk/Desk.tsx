import { Span } from '@chakra-ui/react';
import {
  AudioLines,
  Captions,
  CircleQuestionMark,
  FileOutput,
  Image,
  ListChecks,
  Music,
  Palette,
  Sparkles,
} from 'lucide-react';
import { Suspense, lazy, useMemo } from 'react';
import type { ReactNode } from 'react';
import { formatOf } from '@core/piece';
import { RUNGS, setView, undoNoticed, useDesk } from '../../store/desk-store';
import type { Rung } from '../../store/desk-store';
import { usePiece, useTimes } from '../../store/selectors';
import { importFiles } from '../panels/imports';
import { MusicPanel } from '../panels/MusicPanel';
import { ColourPanel, MotionPanel, PicturePanel, RunThroughPanel, SoundPanel } from '../panels/panels';
import { GuideStrip } from '../guide/GuideStrip';
import { SendPanel } from '../send/SendPanel';
import { WordsPanel } from '../words/WordsPanel';
import { NoticePlace } from '../../ui/NoticePlace';
import { useContextMenu } from '../../ui/use-context-menu';
import { menuFor } from './desk-menus';
import { usePiecesWithin } from '../within/use-pieces-within';
import { useClipboard } from './use-clipboard';
import { useKeys } from './keys';
import { Button } from '../../ui/Button';
import { Workspace } from './Workspace';
import { Header } from './Header';
import { helpOf } from './help-pages';
import { PANEL_NAMES } from './panel-names';
import { WORDS } from './words';

// Fetched when they are opened: the guide, and templates with all that draws them.
const HelpDialog = lazy(async () => ({ default: (await import('./HelpDialog')).HelpDialog }));
const TemplateDialogs = lazy(() => import('../templates/TemplateDialogs'));

const LADDER = {
  music: { icon: <Music size={18} />, panel: <MusicPanel /> },
  words: { icon: <Captions size={18} />, panel: <WordsPanel /> },
  picture: { icon: <Image size={18} />, panel: <PicturePanel /> },
  motion: { icon: <Sparkles size={18} />, panel: <MotionPanel /> },
  sound: { icon: <AudioLines size={18} />, panel: <SoundPanel /> },
  colour: { icon: <Palette size={18} />, panel: <ColourPanel /> },
  'run-through': { icon: <ListChecks size={18} />, panel: <RunThroughPanel /> },
  send: { icon: <FileOutput size={18} />, panel: <SendPanel /> },
} satisfies Record<Rung, { icon: ReactNode; panel: ReactNode }>;

/** A panel with the way to the page of the guide that speaks of it. */
function PanelBody({ panel, children }: { panel: Rung; children: ReactNode }) {
  const page = helpOf(
    panel,
    useDesk((s) => s.panelTabs[panel]),
  );
  return (
    <>
      <Button
        variant="quiet"
        className="panel-help"
        aria-label={WORDS.help}
        onClick={() => setView({ helpPage: page })}
      >
        <CircleQuestionMark size={15} />
      </Button>
      {children}
    </>
  );
}

export function Desk() {
  useKeys();
  useClipboard();
  usePiecesWithin();
  const [contextMenu, onContextMenu] = useContextMenu(menuFor);
  const piece = usePiece();
  const times = useTimes();
  const { rung, formatId, notice, noticeStep, templateDialog, helpPage } = useDesk();
  const format = formatOf(piece, formatId);
  const isWide = format.width / format.height > 1.15;
  const told = useMemo(
    () => (notice === null ? null : { text: notice, undo: noticeStep ? undoNoticed : undefined }),
    [notice, noticeStep],
  );

  const ladder = (
    <nav className="ladder" aria-label={WORDS.ladderOfWork}>
      {RUNGS.map((id) => (
        <Button
          variant="bare"
          key={id}
          data-rung={id}
          aria-pressed={rung === id}
          onClick={() => setView({ rung: rung === id ? null : id })}
        >
          {LADDER[id].icon}
          {PANEL_NAMES[id]}
          {id === 'run-through' && times.missing.length > 0 && <Span color="ember">{times.missing.length}</Span>}
        </Button>
      ))}
    </nav>
  );
  return (
    <div
      className="desk"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        void importFiles([...e.dataTransfer.files]);
      }}
      onContextMenu={onContextMenu}
    >
      <Header />
      <GuideStrip />
      <div className="desk-body">
        {ladder}
        <main className="workspace">
          <Workspace
            isWide={isWide}
            panel={
              rung
                ? { label: PANEL_NAMES[rung], content: <PanelBody panel={rung}>{LADDER[rung].panel}</PanelBody> }
                : null
            }
          />
        </main>
      </div>
      {contextMenu}
      {templateDialog && (
        <Suspense>
          <TemplateDialogs which={templateDialog} />
        </Suspense>
      )}
      {helpPage !== null && (
        <Suspense>
          <HelpDialog />
        </Suspense>
      )}
      <NoticePlace notice={told} onClose={() => setView({ notice: null })} />
    </div>
  );
}
