import {
  AudioLines,
  Captions,
  CircleHelp,
  Image,
  ListChecks,
  Moon,
  Music,
  Palette,
  Redo2,
  Send,
  Sparkles,
  Sun,
  Undo2,
} from 'lucide-react';
import { useEffect, useState } from 'react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { DESTINATIONS, formatOf } from '@core/piece';
import type { DestinationId } from '@core/piece';
import { FRAME_RATES, frameRateLabel } from '@core/time';
import type { FrameRateLabel } from '@core/time';
import { useTheme } from '../../app/use-theme';
import { RUNGS, edit, redoEdit, setView, undoEdit, useDesk } from '../../store/desk-store';
import type { SaveState } from '../../saving/saver';
import type { Rung } from '../../store/desk-store';
import { usePiece, useTimes } from '../../store/selectors';
import { PreviewCanvas } from '../canvas/PreviewCanvas';
import { Details } from '../details/Details';
import { importFile } from '../panels/import-file';
import { MusicPanel } from '../panels/MusicPanel';
import { ColourPanel, MotionPanel, PicturePanel, RunThroughPanel, SoundPanel } from '../panels/panels';
import { SendPanel } from '../panels/SendPanel';
import { Timeline } from '../timeline/Timeline';
import { WordsPanel } from '../words/WordsPanel';
import { Transport } from '../transport/Transport';
import { KEY_COMMANDS, useKeys } from './keys';

const LADDER = {
  music: { label: 'Music', icon: <Music size={18} />, panel: <MusicPanel /> },
  words: { label: 'Words', icon: <Captions size={18} />, panel: <WordsPanel /> },
  picture: { label: 'Picture', icon: <Image size={18} />, panel: <PicturePanel /> },
  motion: { label: 'Motion', icon: <Sparkles size={18} />, panel: <MotionPanel /> },
  sound: { label: 'Sound', icon: <AudioLines size={18} />, panel: <SoundPanel /> },
  colour: { label: 'Colour', icon: <Palette size={18} />, panel: <ColourPanel /> },
  'run-through': { label: 'Run-through', icon: <ListChecks size={18} />, panel: <RunThroughPanel /> },
  send: { label: 'Send', icon: <Send size={18} />, panel: <SendPanel /> },
} satisfies Record<Rung, { label: string; icon: ReactNode; panel: ReactNode }>;

const SAVE_WORDS = {
  saved: 'saved',
  unsaved: 'saving …',
  saving: 'saving …',
  away: 'server away, edits kept here',
  full: 'disk full, edits kept here',
  refused: 'cannot be saved, undo the last change',
  gone: 'deleted elsewhere',
  conflict: 'two versions',
} as const satisfies Record<SaveState, string>;

/** States that a person should notice. */
const NEEDS_LOOKING: ReadonlySet<SaveState> = new Set(['away', 'full', 'refused', 'gone']);

function Header() {
  const piece = usePiece();
  const { formatId, saveState, saveMessage, history } = useDesk();
  const [theme, toggleTheme] = useTheme();
  const [showsKeys, setShowsKeys] = useState(false);
  const missing = Object.entries(DESTINATIONS).filter(([id]) => !piece.formats.some((f) => f.id === id));
  return (
    <header className="desk-head">
      <Link to="/" aria-label="All pieces">
        <img src="/mark.svg" alt="" width="26" height="26" style={{ display: 'block' }} />
      </Link>
      <input
        className="field"
        aria-label="Name of the piece"
        key={piece.name}
        defaultValue={piece.name}
        style={{ background: 'none', fontWeight: 600, fontSize: 15, width: 190 }}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Enter') e.currentTarget.blur();
        }}
        onBlur={(e) => {
          const name = e.target.value.trim();
          if (name && name !== piece.name) edit([{ type: 'piece.rename', name }]);
        }}
      />
      <span
        className={NEEDS_LOOKING.has(saveState) ? 'ember' : 'muted'}
        title={saveMessage ?? undefined}
        role="status"
        aria-label="Saving"
      >
        {SAVE_WORDS[saveState]}
      </span>
      <nav aria-label="Formats" style={{ display: 'flex', gap: 4, margin: '0 auto' }}>
        {piece.formats.map((f) => {
          const k = 15 / Math.max(f.width, f.height);
          return (
            <button
              key={f.id}
              className="quiet"
              aria-pressed={f.id === formatId}
              onClick={() => setView({ formatId: f.id })}
              style={
                f.id === formatId
                  ? { background: 'var(--raised)', color: 'var(--text)', borderRadius: 999, padding: '5px 13px' }
                  : { padding: '5px 13px' }
              }
              title={`${f.width} × ${f.height}${f.id === piece.leadFormatId ? ', leads the others' : ''}`}
            >
              <span
                style={{
                  width: f.width * k,
                  height: f.height * k,
                  border: '1.5px solid currentColor',
                  borderRadius: 3,
                }}
              />{' '}
              {f.name}
            </button>
          );
        })}
        {missing.length > 0 && (
          <select
            className="quiet"
            aria-label="Add a format"
            value=""
            onChange={(e) => {
              const id = e.target.value as DestinationId;
              edit([
                {
                  type: 'format.add',
                  format: {
                    id,
                    name: id[0]!.toUpperCase() + id.slice(1),
                    width: DESTINATIONS[id].width,
                    height: DESTINATIONS[id].height,
                  },
                },
              ]);
              setView({ formatId: id });
            }}
          >
            <option value="" disabled>
              +
            </option>
            {missing.map(([id, d]) => (
              <option key={id} value={id}>
                {d.label}
              </option>
            ))}
          </select>
        )}
      </nav>
      <select
        className="quiet mono"
        aria-label="Frame rate"
        value={frameRateLabel(piece.frameRate)}
        onChange={(e) =>
          edit([{ type: 'piece.setFrameRate', frameRate: FRAME_RATES[e.target.value as FrameRateLabel] }])
        }
      >
        {Object.keys(FRAME_RATES).map((label) => (
          <option key={label} value={label}>
            {label} fps
          </option>
        ))}
      </select>
      <span style={{ display: 'flex' }}>
        <button
          className="quiet"
          aria-label="Undo"
          disabled={history.done.length === 0}
          title={history.done[history.done.length - 1]?.label}
          onClick={undoEdit}
        >
          <Undo2 size={17} />
        </button>
        <button className="quiet" aria-label="Do again" disabled={history.undone.length === 0} onClick={redoEdit}>
          <Redo2 size={17} />
        </button>
        <button
          className="quiet"
          aria-label={theme === 'dark' ? 'Use the light variant' : 'Use the dark variant'}
          onClick={toggleTheme}
        >
          {theme === 'dark' ? <Sun size={16} /> : <Moon size={16} />}
        </button>
        <button className="quiet" aria-label="Keys" aria-expanded={showsKeys} onClick={() => setShowsKeys(!showsKeys)}>
          <CircleHelp size={16} />
        </button>
      </span>
      <button className="lamp" onClick={() => setView({ rung: 'send' })}>
        Send
      </button>
      {showsKeys && (
        <div
          role="dialog"
          aria-label="Keys"
          style={{
            position: 'fixed',
            top: 52,
            right: 14,
            background: 'var(--raised)',
            border: '1px solid var(--line)',
            borderRadius: 12,
            padding: 14,
            zIndex: 40,
            maxHeight: '80vh',
            overflowY: 'auto',
            display: 'grid',
            gridTemplateColumns: 'auto auto',
            gap: '3px 18px',
          }}
        >
          {KEY_COMMANDS.map((c) => (
            <div key={c.label} style={{ display: 'contents' }}>
              <span className="mono muted">{c.keys[0]?.replace('mod', 'Ctrl').replaceAll('arrow', '')}</span>
              <span>{c.label}</span>
            </div>
          ))}
        </div>
      )}
    </header>
  );
}

/**
 * The desk: it follows the frame. Canvas above for wide formats; canvas at full height beside the rest for tall and
 * square ones.
 */
/** Takes in what is dropped anywhere on the desk, one file after another. */
async function bringIn(files: readonly File[]): Promise<void> {
  for (const file of files) {
    setView({ notice: `Bringing in ${file.name} …` });
    await importFile(file, 'any', () => {}, new AbortController().signal);
  }
}

export function Desk() {
  useKeys();
  const piece = usePiece();
  const times = useTimes();
  const { rung, formatId, notice } = useDesk();
  const format = formatOf(piece, formatId);
  const isWide = format.width / format.height > 1.15;
  const [split, setSplit] = useState<{ wide: number; tall: number }>({ wide: 0.55, tall: 0.36 });
  useEffect(() => {
    if (!notice) return;
    const timer = setTimeout(() => setView({ notice: null }), 6000);
    return () => clearTimeout(timer);
  }, [notice]);

  const ladder = (
    <nav className="ladder" aria-label="Ladder of work">
      {RUNGS.map((id) => (
        <button key={id} aria-pressed={rung === id} onClick={() => setView({ rung: rung === id ? null : id })}>
          {LADDER[id].icon}
          {LADDER[id].label}
          {id === 'run-through' && times.missing.length > 0 && (
            <span style={{ color: 'var(--ember)' }}>{times.missing.length}</span>
          )}
        </button>
      ))}
    </nav>
  );
  const panel = (
    <section className="panel" aria-label={rung ? LADDER[rung].label : 'No panel'}>
      {rung && LADDER[rung].panel}
    </section>
  );
  const splitter = (
    <div
      className="splitter"
      role="separator"
      tabIndex={0}
      aria-orientation={isWide ? 'horizontal' : 'vertical'}
      aria-label="Divide the desk"
      aria-valuemin={20}
      aria-valuemax={75}
      aria-valuenow={Math.round(split[isWide ? 'wide' : 'tall'] * 100)}
      style={{
        cursor: isWide ? 'row-resize' : 'col-resize',
        position: 'absolute',
        ...(isWide ? { left: 0, right: 0, height: 6, bottom: -3 } : { top: 0, bottom: 0, width: 6, right: -3 }),
      }}
      onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
      onPointerMove={(e) => {
        if (!e.currentTarget.hasPointerCapture(e.pointerId)) return;
        const share = isWide
          ? (e.clientY - 46) / (window.innerHeight - 46)
          : (e.clientX - 74) / (window.innerWidth - 74);
        setSplit((s) => ({ ...s, [isWide ? 'wide' : 'tall']: Math.min(0.75, Math.max(0.2, share)) }));
      }}
      onKeyDown={(e) => {
        const by = { ArrowUp: -0.02, ArrowLeft: -0.02, ArrowDown: 0.02, ArrowRight: 0.02 }[e.key];
        if (by) {
          e.stopPropagation();
          setSplit((s) => ({
            ...s,
            [isWide ? 'wide' : 'tall']: Math.min(0.75, Math.max(0.2, s[isWide ? 'wide' : 'tall'] + by)),
          }));
        }
      }}
    />
  );
  return (
    <div
      className="desk"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        void bringIn([...e.dataTransfer.files]);
      }}
    >
      <Header />
      <div className="desk-body">
        {ladder}
        {isWide ? (
          <main className="workspace wide" style={{ ['--split' as string]: `${split.wide * 100}%` }}>
            <div className={`upper${rung ? '' : ' closed'}`} style={{ position: 'relative' }}>
              {panel}
              <PreviewCanvas />
              <Details />
              {splitter}
            </div>
            <Transport />
            <Timeline />
          </main>
        ) : (
          <main className="workspace tall" style={{ ['--split' as string]: `${split.tall * 100}%` }}>
            <div style={{ position: 'relative', display: 'grid', minHeight: 0, borderRight: '1px solid var(--line)' }}>
              <PreviewCanvas />
              {splitter}
            </div>
            <div className="beside">
              <div className={`upper${rung ? '' : ' closed'}`}>
                {panel}
                <Details />
              </div>
              <Transport />
              <Timeline />
            </div>
          </main>
        )}
      </div>
      {notice && (
        <div className="notice" role="status">
          {notice}
          <button className="quiet" onClick={() => setView({ notice: null })}>
            Close
          </button>
        </div>
      )}
    </div>
  );
}
