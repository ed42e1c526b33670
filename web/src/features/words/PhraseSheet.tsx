import { Box, Flex, Input, Span, Textarea } from '@chakra-ui/react';
import { Lock, LockOpen } from 'lucide-react';
import { useState } from 'react';
import { MANNERS, STAGING_IDS, STAGING_LABELS, authorLayer, phraseLayers } from '@core/piece';
import type { Manner, TextLayer } from '@core/piece';
import { READING_PACES } from '@core/text';
import type { ReadingPace } from '@core/text';
import { beatToBar, formatBarBeat, secondsToBeat } from '@core/time';
import { playhead } from '../../platform/clock';
import { newId } from '../../platform/ids';
import { edit, selectLayers, useDesk } from '../../store/desk-store';
import { usePiece, useTimes } from '../../store/selectors';
import { ColourField } from '../../ui/ColourField';
import {
  joinPhrase,
  movePhrase,
  layAgain,
  pasteQuote,
  phraseTimes,
  setPhraseText,
  setSheet,
  splitPhrase,
  toggleEmphasis,
  toggleLock,
} from './phrase-commands';
import type { LayOutcome } from './phrase-commands';
import { Choice } from '../../ui/Choice';
import { Button } from '../../ui/Button';
import { SortableList, useSortableRow } from '../../ui/SortableList';
import { WORDS } from './words';

/** Text first: a quote becomes phrases, and phrases are laid on the music. */
export function PhraseSheet() {
  const piece = usePiece();
  const times = useTimes();
  const phrases = phraseLayers(piece, times);
  const [isPasting, setPasting] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const show = (outcome: LayOutcome) => setProblem(outcome.ok ? null : outcome.words);
  if (phrases.length === 0 || isPasting)
    return (
      <QuoteForm
        onDone={(outcome) => {
          show(outcome);
          if (outcome.ok || outcome.isLaid) setPasting(false);
        }}
        onCancel={phrases.length > 0 ? () => setPasting(false) : null}
        problem={problem}
      />
    );
  const { sheet } = piece;
  const short = phrases.filter((layer) => {
    const t = phraseTimes({ piece, times }, layer);
    return t.has < t.needs - 0.01;
  }).length;
  return (
    <>
      <Flex gap="4px" marginBottom="4px">
        <Choice
          aria-label={WORDS.staging}
          title={STAGING_LABELS[sheet.staging].feel}
          flex="1"
          minWidth="0"
          value={sheet.staging}
          onChange={(e) => show(setSheet({ staging: e.target.value as typeof sheet.staging }))}
        >
          {STAGING_IDS.map((id) => (
            <option key={id} value={id} title={STAGING_LABELS[id].feel}>
              {STAGING_LABELS[id].label}
            </option>
          ))}
        </Choice>
        <Choice
          aria-label={WORDS.phrasesCome}
          title={MANNERS[sheet.manner].hint}
          value={sheet.manner}
          onChange={(e) => show(setSheet({ manner: e.target.value as Manner }))}
        >
          {Object.entries(MANNERS).map(([id, m]) => (
            <option key={id} value={id}>
              {m.label}
            </option>
          ))}
        </Choice>
      </Flex>
      <Box as="p" className="muted" margin="0 0 4px" fontSize="12px">
        {STAGING_LABELS[sheet.staging].feel}; {MANNERS[sheet.manner].hint}
      </Box>
      <Flex gap="6px" alignItems="center" marginBottom="6px">
        <Choice
          aria-label={WORDS.readingPace}
          title={WORDS.howMuchTimeTo}
          value={sheet.pace}
          onChange={(e) => show(setSheet({ pace: e.target.value as ReadingPace }))}
        >
          {Object.entries(READING_PACES).map(([id, p]) => (
            <option key={id} value={id}>
              {p.label}
            </option>
          ))}
        </Choice>
        <ColourField
          compact
          label={WORDS.colourOfTheWords}
          value={sheet.colour}
          onChange={(colour, drag) => setSheet({ colour }, drag)}
        />
        <ColourField
          compact
          label={WORDS.accentColour}
          value={sheet.accent}
          onChange={(accent, drag) => setSheet({ accent }, drag)}
        />
        <Button
          variant="quiet"
          marginLeft="auto"
          aria-pressed={sheet.hasLoopCue}
          title={WORDS.theFirstPhraseIn}
          onClick={() => setSheet({ hasLoopCue: !sheet.hasLoopCue })}
        >
          {WORDS.loopCue}
        </Button>
      </Flex>
      <Flex gap="5px" marginBottom="4px">
        <Button variant="lamp" padding="5px 14px" onClick={() => show(layAgain(false))}>
          {WORDS.layOnTheMusic}
        </Button>
        <Button variant="quiet" onClick={() => setPasting(true)}>
          {WORDS.newQuote}
        </Button>
      </Flex>
      {problem && (
        <Box as="p" role="alert" color="ember" margin="4px 0 8px">
          {WORDS.theyHaveBeenLaid(problem)}
        </Box>
      )}
      <Box as="p" className="muted" margin="4px 0 8px" fontSize="12px">
        {short === 0 ? WORDS.phrasesEachCanBe(phrases.length) : WORDS.ofStandTooShort(short, phrases.length)}{' '}
        <kbd>{WORDS.enter}</kbd>
        {WORDS.partsAtTheCaret}
        <kbd>{WORDS.shiftEnter}</kbd>
        {WORDS.whereItReadsBest}
        <kbd>{WORDS.backspace}</kbd>
        {WORDS.inFrontJoins}
      </Box>
      <SortableList
        label={WORDS.phrases}
        instructions={WORDS.howPhrasesAreSorted}
        ids={phrases.map((layer) => layer.id)}
        onMove={(id, to) => movePhrase(id, to)}
      >
        {phrases.map((layer, i) => (
          <PhraseRow key={layer.id} layer={layer} index={i} />
        ))}
      </SortableList>
      <AuthorRow />
    </>
  );
}

function QuoteForm({
  onDone,
  onCancel,
  problem,
}: {
  onDone: (outcome: LayOutcome) => void;
  onCancel: (() => void) | null;
  problem: string | null;
}) {
  const [text, setText] = useState('');
  const [author, setAuthor] = useState('');
  return (
    <>
      <p className="muted">{WORDS.putInAQuote}</p>
      <Textarea
        aria-label={WORDS.quote}
        rows={8}
        value={text}
        placeholder={WORDS.aKiteIsA}
        width="100%"
        resize="vertical"
        onKeyDown={(e) => e.stopPropagation()}
        onChange={(e) => setText(e.target.value)}
      />
      <Input
        aria-label={WORDS.whoSaidIt}
        value={author}
        placeholder={WORDS.whoSaidIt}
        width="100%"
        margin="6px 0 8px"
        onKeyDown={(e) => e.stopPropagation()}
        onChange={(e) => setAuthor(e.target.value)}
      />
      {problem && (
        <Box as="p" role="alert" color="ember">
          {problem}
        </Box>
      )}
      <Flex gap="6px">
        <Button variant="lamp" disabled={text.trim() === ''} onClick={() => onDone(pasteQuote(text, author))}>
          {WORDS.layOnTheMusic}
        </Button>
        {onCancel && (
          <Button variant="quiet" onClick={onCancel}>
            {WORDS.back}
          </Button>
        )}
      </Flex>
    </>
  );
}

function PhraseRow({ layer, index }: { layer: TextLayer; index: number }) {
  const piece = usePiece();
  const times = useTimes();
  const isOn = useDesk((s) => s.selectedLayers.includes(layer.id));
  const [gesture] = useState(newId);
  const { start, has, needs } = phraseTimes({ piece, times }, layer);
  const isShort = has < needs - 0.01;
  const tag = layer.content.phrase!; // rows are made for phrases
  const words = layer.content.text.split(/\s+/u);
  const row = useSortableRow(layer.id, WORDS.movePhrase(index + 1));
  return (
    <Box
      ref={row.ref}
      style={row.style}
      position="relative"
      role="listitem"
      className={`list-row${isOn ? ' on' : ''}`}
      display="block"
      cursor="default"
      onClick={() => {
        if (!isOn) selectLayers([layer.id]);
      }}
    >
      <Flex alignItems="center" gap="6px">
        {row.handle}
        <Button
          variant="quiet"
          className="mono"
          padding="0"
          fontSize="11.5px"
          aria-label={WORDS.goTo(layer.content.text)}
          onClick={() => {
            selectLayers([layer.id]);
            playhead.set(Math.max(0, start + Math.min(0.6, has / 2)));
          }}
        >
          {formatBarBeat(beatToBar(times.grid, secondsToBeat(times.grid, start)))}
        </Button>
        <Span className="meter" flex="1">
          <i data-short={isShort} style={{ width: `${Math.min(100, (needs / Math.max(0.01, has)) * 100)}%` }} />
        </Span>
        <Span className="mono" fontSize="11px" color={isShort ? 'ember' : 'muted'} title={WORDS.secondsItTakesTo}>
          {WORDS.ofS(needs.toFixed(1), has.toFixed(1))}
        </Span>
        <Button
          variant="quiet"
          padding="0"
          aria-pressed={tag.locked}
          aria-label={tag.locked ? WORDS.letItsTimeChange : WORDS.keepItsTime}
          onClick={() => toggleLock(layer.id)}
        >
          {tag.locked ? <Lock size={13} /> : <LockOpen size={13} />}
        </Button>
      </Flex>
      <Textarea
        aria-label={WORDS.phrase(index + 1)}
        value={layer.content.text}
        rows={Math.max(1, Math.ceil(layer.content.text.length / 27))}
        disabled={layer.locked}
        width="100%"
        resize="none"
        background="none"
        padding="3px 0"
        border="0"
        fontSize="14px"
        onFocus={() => selectLayers([layer.id])}
        onChange={(e) => setPhraseText(layer.id, e.target.value.replace(/\n/g, ' '), gesture)}
        onKeyDown={(e) => {
          e.stopPropagation();
          const field = e.currentTarget;
          if (e.key === 'Enter') {
            e.preventDefault();
            splitPhrase(layer.id, e.shiftKey ? null : field.selectionStart);
          } else if (e.key === 'Backspace' && field.selectionStart === 0 && field.selectionEnd === 0 && index > 0) {
            e.preventDefault();
            joinPhrase(layer.id);
          }
        }}
      />
      {isOn && (
        <Flex flexWrap="wrap" gap="3px" role="group" aria-label={WORDS.wordsThatCarryThe}>
          {words.map((word, w) => (
            <Button
              key={w}
              variant="quiet"
              padding="1px 6px"
              fontSize="12px"
              borderRadius="999px"
              background="raised"
              aria-pressed={tag.emphasis.includes(w)}
              onClick={() => toggleEmphasis(layer.id, w)}
            >
              {word}
            </Button>
          ))}
        </Flex>
      )}
    </Box>
  );
}

function AuthorRow() {
  const author = authorLayer(usePiece());
  const [gesture] = useState(newId);
  if (!author) return null;
  return (
    <Box className="list-row" display="block">
      <Span className="muted" fontSize="11.5px">
        {WORDS.saidBy}
      </Span>
      <Input
        aria-label={WORDS.author}
        value={author.content.text}
        width="100%"
        background="none"
        padding="2px 0"
        onFocus={() => selectLayers([author.id])}
        onKeyDown={(e) => e.stopPropagation()}
        onChange={(e) =>
          edit([{ type: 'layer.setContent', id: author.id, content: { text: e.target.value } }], gesture)
        }
      />
    </Box>
  );
}
