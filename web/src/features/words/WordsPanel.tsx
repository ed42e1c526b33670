import { Box, Textarea } from '@chakra-ui/react';
import { Type } from 'lucide-react';
import type { TextLayer } from '@core/piece';
import { playhead } from '../../platform/clock';
import { edit, selectLayers, setView, useDesk } from '../../store/desk-store';
import { usePiece } from '../../store/selectors';
import { Tabs } from '../../ui/Tabs';
import { addText } from '../layers/add-layers';
import { PANEL_TABS, usePanelTab } from '../panels/panel-tabs';
import { CaptionSheet } from './CaptionSheet';
import { CreditSheet } from './CreditSheet';
import { PhraseSheet } from './PhraseSheet';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

export function WordsPanel() {
  const [tab, setTab] = usePanelTab('words');
  return (
    <>
      <h2 className="title">{WORDS.words}</h2>
      <Tabs label={WORDS.kindsOfWords} tabs={PANEL_TABS.words} value={tab} onChange={setTab}>
        {tab === 'phrases' && <PhraseSheet />}
        {tab === 'captions' && <CaptionSheet />}
        {tab === 'credits' && <CreditSheet />}
        {tab === 'texts' && <AllWords />}
      </Tabs>
    </>
  );
}

function AllWords() {
  const piece = usePiece();
  const selectedLayers = useDesk((s) => s.selectedLayers);
  const texts = piece.layers.filter((l): l is TextLayer => l.kind === 'text');
  return (
    <>
      <p className="muted">{WORDS.typeThemHereOr}</p>
      <Button variant="lamp" onClick={() => setView({ editingText: addText() })}>
        <Type size={16} />
        {WORDS.newWords}
      </Button>
      <Box marginTop="14px">
        {texts.map((layer) => (
          <div
            key={layer.id}
            className={`list-row${selectedLayers.includes(layer.id) ? ' on' : ''}`}
            onClick={() => selectLayers([layer.id])}
          >
            <Textarea
              aria-label={WORDS.wordsOf(layer.name)}
              rows={Math.min(4, layer.content.text.split('\n').length)}
              value={layer.content.text}
              disabled={layer.locked}
              width="100%"
              resize="none"
              background="none"
              padding="2px"
              onKeyDown={(e) => e.stopPropagation()}
              onFocus={() => selectLayers([layer.id])}
              onChange={(e) => {
                edit(
                  [{ type: 'layer.setContent', id: layer.id, content: { text: e.target.value } }],
                  `words-${layer.id}`,
                );
                playhead.set(playhead.seconds);
              }}
            />
          </div>
        ))}
      </Box>
    </>
  );
}
