import { Box, Input, Span } from '@chakra-ui/react';
import { CircleHelp, Moon, Redo2, Search, Sun, Undo2 } from 'lucide-react';
import { Link } from 'react-router';
import { DESTINATIONS } from '@core/piece';
import type { DestinationId } from '@core/piece';
import { FRAME_RATES, frameRateLabel } from '@core/time';
import type { FrameRateLabel } from '@core/time';
import { useTheme } from '../../app/use-theme';
import { edit, redoEdit, setView, undoEdit, useDesk } from '../../store/desk-store';
import type { SaveState } from '../../saving/saver';
import { usePiece } from '../../store/selectors';
import { Choice } from '../../ui/Choice';
import { Button } from '../../ui/Button';
import { useImports } from '../panels/imports';
import { WORDS as PANEL_WORDS } from '../panels/words';
import { FindAnything } from './FindAnything';
import { FormatTabs } from './FormatTabs';
import { KeySheet } from './KeySheet';
import { WORDS } from './words';

const SAVE_WORDS = {
  saved: WORDS.saved,
  unsaved: WORDS.beingSaved,
  saving: WORDS.beingSaved,
  away: WORDS.serverAwayEditsKept,
  full: WORDS.diskFullEditsKept,
  refused: WORDS.cannotBeSavedUndo,
  gone: WORDS.deletedElsewhere,
  conflict: WORDS.twoVersions,
} as const satisfies Record<SaveState, string>;

/** States that a person should notice. */
const NEEDS_LOOKING: ReadonlySet<SaveState> = new Set(['away', 'full', 'refused', 'gone']);

/** How many files are on their way into the piece, and how far the first of them is. */
function ImportsUnderway() {
  const { list } = useImports();
  const [first] = list;
  if (!first) return null;
  return (
    <Span
      role="status"
      fontSize="12.5px"
      color="tide"
      whiteSpace="nowrap"
      title={list.map(({ name }) => name).join(', ')}
    >
      {PANEL_WORDS.importing(list.length)} {Math.round(first.share * 100)} %
    </Span>
  );
}

export function Header() {
  const piece = usePiece();
  const { saveState, saveMessage, history, isFinding, showsKeys, formatId } = useDesk();
  const [theme, toggleTheme] = useTheme();
  const missing = Object.entries(DESTINATIONS).filter(([id]) => !piece.formats.some((f) => f.id === id));
  return (
    <header className="desk-head">
      <Link to="/" aria-label={WORDS.allPieces}>
        <img src="/mark.svg" alt="" width="26" height="26" className="block" />
      </Link>
      <Input
        aria-label={WORDS.nameOfThePiece}
        key={piece.name}
        defaultValue={piece.name}
        background="none"
        fontWeight="600"
        fontSize="15px"
        width="190px"
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
        aria-label={WORDS.saving}
      >
        {SAVE_WORDS[saveState]}
      </span>
      <Box as="nav" aria-label={WORDS.formats} display="flex" gap="4px" margin="0 auto">
        <FormatTabs />
        {piece.leadFormatId !== formatId && (
          <Button
            variant="quiet"
            aria-label={WORDS.adapt}
            onClick={() => void import('./adapt-command').then((part) => part.adaptShown())}
          >
            {WORDS.adaptShort}
          </Button>
        )}
        {missing.length > 0 && (
          <Choice
            variant="quiet"
            width="44px"
            aria-label={WORDS.addAFormat}
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
          </Choice>
        )}
      </Box>
      <Choice
        variant="quiet"
        className="mono"
        aria-label={WORDS.frameRate}
        value={frameRateLabel(piece.frameRate)}
        onChange={(e) =>
          edit([{ type: 'piece.setFrameRate', frameRate: FRAME_RATES[e.target.value as FrameRateLabel] }])
        }
      >
        {Object.keys(FRAME_RATES).map((label) => (
          <option key={label} value={label}>
            {WORDS.fps(label)}
          </option>
        ))}
      </Choice>
      <Span display="flex">
        <Button
          variant="quiet"
          aria-label={WORDS.undo}
          disabled={history.done.length === 0}
          title={history.done[history.done.length - 1]?.label}
          onClick={undoEdit}
        >
          <Undo2 size={17} />
        </Button>
        <Button variant="quiet" aria-label={WORDS.redo} disabled={history.undone.length === 0} onClick={redoEdit}>
          <Redo2 size={17} />
        </Button>
        <Button
          variant="quiet"
          aria-label={theme === 'dark' ? WORDS.useTheLightVariant : WORDS.useTheDarkVariant}
          onClick={toggleTheme}
        >
          {theme === 'dark' ? <Sun size={16} /> : <Moon size={16} />}
        </Button>
        <Button variant="quiet" aria-label={WORDS.findAnything} onClick={() => setView({ isFinding: true })}>
          <Search size={16} />
        </Button>
        <Button
          variant="quiet"
          aria-label={WORDS.keys}
          aria-expanded={showsKeys}
          onClick={() => setView({ showsKeys: !showsKeys })}
        >
          <CircleHelp size={16} />
        </Button>
      </Span>
      <ImportsUnderway />
      <Button variant="lamp" onClick={() => setView({ rung: 'send' })}>
        {WORDS.send}
      </Button>
      <KeySheet isOpen={showsKeys} onClose={() => setView({ showsKeys: false })} />
      <FindAnything isOpen={isFinding} onClose={() => setView({ isFinding: false })} />
    </header>
  );
}
