import { Box, Flex } from '@chakra-ui/react';
import type { CheckId } from '@core/checks';
import { useState } from 'react';
import { PANEL_TABS, usePanelTab } from './panel-tabs';
import { DEFAULT_EASING } from '@core/motion';
import type { Easing } from '@core/motion';
import { hasProperty, literalColours, propertyDefinition, songOf } from '@core/piece';
import type { PropertyId } from '@core/piece';
import { edit, setView, useDesk } from '../../store/desk-store';
import { useAnalysis, usePiece, useSelectedLayer } from '../../store/selectors';
import { ColourField } from '../../ui/ColourField';
import { NumberField } from '../../ui/NumberField';
import { Tabs } from '../../ui/Tabs';
import { copySelection, pasteSelection } from '../desk/clipboard';
import { reverseKeys, selectAllKeys, setEasing, stretchKeys, toggleKey } from '../desk/commands';
import { EffectsTab } from '../effects/EffectsTab';
import { MasksTab } from '../effects/MasksTab';
import { GestureSection } from '../gestures/GestureSection';
import { SmearTab } from '../gestures/SmearTab';
import { PaintTab } from '../paints/PaintTab';
import { FindingRow } from '../run-through/FindingRow';
import { FlashCheck } from '../run-through/FlashCheck';
import { ReadingCheck } from '../run-through/ReadingCheck';
import { useFindings } from '../run-through/use-findings';
import { addEntries } from '../layers/layer-kinds';
import { LogoReportCard } from '../logo/LogoReportCard';
import { CopiesTab } from '../ties/CopiesTab';
import { FollowTab } from '../ties/FollowTab';
import { ListenTab } from '../ties/ListenTab';
import { WardrobeTab } from '../wardrobe/WardrobeTab';
import { FileDrop } from './FileDrop';
import { SongDrop } from './SongDrop';
import { SpreadSection } from './SpreadSection';
import { SyncCheck } from './SyncCheck';
import { Button } from '../../ui/Button';
import { TravelSection } from '../canvas/TravelSection';
import { PieceChooser } from '../within/PieceChooser';
import { WORDS as WITHIN_WORDS } from '../within/words';
import { WORDS } from './words';

export function PicturePanel() {
  const [tab, setTab] = usePanelTab('picture');
  return (
    <>
      <h2 className="title">{WORDS.picture}</h2>
      <Tabs label={WORDS.picture} tabs={PANEL_TABS.picture} value={tab} onChange={setTab}>
        {tab === 'put' && <PutUp />}
        {tab === 'paint' && <PaintTab />}
        {tab === 'effects' && <EffectsTab />}
        {tab === 'masks' && <MasksTab />}
        {tab === 'copies' && <CopiesTab />}
      </Tabs>
    </>
  );
}

const SEEN = ['picture', 'footage'] as const;

function PutUp() {
  const [isChoosing, setChoosing] = useState(false);
  return (
    <>
      <p className="muted">{WORDS.shapesStartAtThe}</p>
      <Box display="grid" gridTemplateColumns="repeat(2, minmax(0, 1fr))" gap="6px" marginBottom="6px">
        {addEntries().map(({ id, label, icon, run }) => (
          <Button key={id} variant="soft" onClick={run}>
            {icon} {label}
          </Button>
        ))}
      </Box>
      <Flex gap="6px" marginBottom="14px">
        <Button variant="soft" onClick={() => setView({ templateDialog: 'gallery' })}>
          {WORDS.aTemplate}
        </Button>
        <Button variant="soft" onClick={() => setChoosing(true)}>
          {WITHIN_WORDS.aPiece}
        </Button>
      </Flex>
      {isChoosing && <PieceChooser onClose={() => setChoosing(false)} />}
      <FileDrop wanted={SEEN} label={WORDS.chooseAPicture}>
        <Box as="strong" color="text" fontWeight="600">
          {WORDS.dropAPictureHere}
        </Box>
        <br />
        {WORDS.pngJpegWebpGif}
      </FileDrop>
      <LogoReportCard />
    </>
  );
}

const QUICK: readonly { label: string; easing: Easing }[] = [
  { label: WORDS.soft, easing: DEFAULT_EASING },
  { label: WORDS.arrive, easing: { type: 'named', name: 'quint-out' } },
  { label: WORDS.leave, easing: { type: 'named', name: 'cubic-in' } },
  { label: WORDS.overshoot, easing: { type: 'named', name: 'back-out' } },
  { label: WORDS.spring, easing: { type: 'spring', oscillations: 2, damping: 0.35 } },
  { label: WORDS.bounce, easing: { type: 'bounce', bounces: 3, restitution: 0.55 } },
  { label: WORDS.linear, easing: { type: 'linear' } },
  { label: WORDS.hold, easing: { type: 'hold' } },
];

export function MotionPanel() {
  const [tab, setTab] = usePanelTab('motion');
  return (
    <>
      <h2 className="title">{WORDS.motion}</h2>
      <Tabs label={WORDS.kindsOfMovement} tabs={PANEL_TABS.motion} value={tab} onChange={setTab}>
        {tab === 'gestures' && <GestureSection />}
        {tab === 'keyframes' && <KeyframesTab />}
        {tab === 'beats' && <SpreadSection />}
        {tab === 'smear' && <SmearTab />}
        {tab === 'listen' && <ListenTab />}
        {tab === 'follow' && <FollowTab />}
      </Tabs>
    </>
  );
}

function KeyframesTab() {
  const layer = useSelectedLayer();
  const keys = useDesk((s) => s.selectedKeys);
  const moving: PropertyId[] = ['position', 'scale', 'rotation', 'opacity'];
  return (
    <>
      {!layer && <p className="muted">{WORDS.selectALayerKeyframes}</p>}
      {layer && (
        <>
          <p className="muted">{WORDS.keyframeAtThePlayhead(layer.name)}</p>
          <Flex gap="5px" flexWrap="wrap">
            {moving
              .filter((p) => hasProperty(layer.kind, p))
              .map((p) => (
                <Button key={p} variant="soft" onClick={() => toggleKey(layer, p)}>
                  {propertyDefinition(p).label}
                </Button>
              ))}
          </Flex>
          <TravelSection layer={layer} />
        </>
      )}
      <hr className="rule" />
      <Box as="p" className="muted" marginTop="0">
        {keys.length === 0 ? WORDS.noKeyframesSelected : WORDS.keyframeSelectedEasingFrom(keys.length)}
      </Box>
      <Flex gap="5px" flexWrap="wrap">
        {QUICK.map((q) => (
          <Button key={q.label} variant="soft" disabled={keys.length === 0} onClick={() => setEasing(q.easing)}>
            {q.label}
          </Button>
        ))}
      </Flex>
      <hr className="rule" />
      <Flex gap="5px" flexWrap="wrap">
        <Button variant="soft" disabled={!layer} onClick={selectAllKeys}>
          {WORDS.selectAllKeyframes}
        </Button>
        <Button variant="soft" disabled={keys.length === 0} onClick={copySelection}>
          {WORDS.copy}
        </Button>
        <Button variant="soft" disabled={!layer} onClick={pasteSelection}>
          {WORDS.pasteHere}
        </Button>
        <Button variant="soft" disabled={keys.length < 2} onClick={reverseKeys}>
          {WORDS.reverse}
        </Button>
        <Button variant="soft" disabled={keys.length < 2} onClick={() => stretchKeys(2)}>
          {WORDS.stretch2}
        </Button>
        <Button variant="soft" disabled={keys.length < 2} onClick={() => stretchKeys(0.5)}>
          {WORDS.squeeze}
        </Button>
      </Flex>
    </>
  );
}

export function SoundPanel() {
  const piece = usePiece();
  const { music } = piece;
  const analysis = useAnalysis();
  if (!music)
    return (
      <>
        <h2 className="title">{WORDS.sound}</h2>
        <p className="muted">{WORDS.thereIsNoMusic}</p>
        <SongDrop />
      </>
    );
  const set = (change: Partial<typeof music>, gesture: string) =>
    edit([{ type: 'music.set', music: { ...music, ...change } }], gesture);
  return (
    <>
      <h2 className="title">{WORDS.sound}</h2>
      <p className="muted">
        {WORDS.how}
        {songOf(piece)?.name.replace(/\.\w+$/, '')}
        {WORDS.playsInThePiece}
      </p>
      <div className="prop">
        <span />
        <span className="name">{WORDS.loudness}</span>
        <NumberField
          label={WORDS.loudness}
          value={Number(music.volume.value) * 100}
          unit="%"
          min={0}
          max={400}
          onChange={(v, g) => set({ volume: { ...music.volume, value: v / 100 } }, g)}
        />
      </div>
      <div className="prop">
        <span />
        <span className="name">{WORDS.fadeIn}</span>
        <NumberField
          label={WORDS.fadeIn}
          value={music.fadeIn}
          unit="s"
          step={0.05}
          min={0}
          onChange={(v, g) => set({ fadeIn: v }, g)}
        />
      </div>
      <div className="prop">
        <span />
        <span className="name">{WORDS.fadeOut}</span>
        <NumberField
          label={WORDS.fadeOut}
          value={music.fadeOut}
          unit="s"
          step={0.05}
          min={0}
          onChange={(v, g) => set({ fadeOut: v }, g)}
        />
      </div>
      <div className="prop">
        <span />
        <span className="name">{WORDS.startsInThePiece}</span>
        <NumberField
          label={WORDS.songStart}
          value={music.start}
          unit="s"
          step={0.01}
          decimals={3}
          onChange={(v, g) => set({ start: v }, g)}
        />
      </div>
      <div className="prop">
        <span />
        <span className="name">{WORDS.leaveOutAtThe}</span>
        <NumberField
          label={WORDS.songTrim}
          value={music.trimStart}
          unit="s"
          step={0.01}
          min={0}
          max={Math.max(0, (music.trimEnd ?? analysis?.duration ?? 3600) - 0.1)}
          decimals={3}
          onChange={(v, g) => set({ trimStart: v }, g)}
        />
      </div>
    </>
  );
}

export function ColourPanel() {
  const [tab, setTab] = usePanelTab('colour');
  return (
    <>
      <h2 className="title">{WORDS.colour}</h2>
      <Tabs label={WORDS.colour} tabs={PANEL_TABS.colour} value={tab} onChange={setTab}>
        {tab === 'piece' && <ColoursInUse />}
        {tab === 'wardrobe' && <WardrobeTab />}
      </Tabs>
    </>
  );
}

function ColoursInUse() {
  const piece = usePiece();
  const { background } = piece;
  return (
    <>
      <div className="prop" data-guide="background">
        <span />
        <span className="name">{WORDS.background}</span>
        <ColourField
          label={WORDS.background}
          value={background.value as string} // the background takes colours
          onChange={(value, g) => edit([{ type: 'piece.setBackground', background: { ...background, value } }], g)}
        />
      </div>
      <hr className="rule" />
      <Box as="p" className="muted" marginTop="0">
        {WORDS.inThePiece}
      </Box>
      <Flex gap="6px" flexWrap="wrap">
        {literalColours(piece).map((colour) => (
          <span key={colour} className="swatch" style={{ background: colour }} title={colour} />
        ))}
      </Flex>
    </>
  );
}

/** What the lists below show, each with what helps. */
const BELOW: readonly CheckId[] = ['reading', 'safe-area', 'families', 'beat'];

export function RunThroughPanel() {
  const all = useFindings();
  // The others have lists of their own below, with what helps.
  const findings = all?.filter((f) => !BELOW.includes(f.check)) ?? [];
  return (
    <>
      <h2 className="title">{WORDS.runThrough}</h2>
      {all === null ? (
        <p className="muted">{WORDS.looking}</p>
      ) : findings.length === 0 ? (
        <Box as="p" color="moss">
          {WORDS.everyPinHoldsAnd}
        </Box>
      ) : (
        <p className="muted">{WORDS.toLookAt(findings.length)}</p>
      )}
      {findings.map((f) => (
        <FindingRow key={`${f.check}-${f.layerId ?? ''}-${f.text}`} at={f} text={f.text}>
          {f.fixes.map(({ label, edits }) => (
            <Button key={label} variant="soft" aria-label={WORDS.fixOf(label, f.text)} onClick={() => edit([...edits])}>
              {label}
            </Button>
          ))}
        </FindingRow>
      ))}
      <hr className="rule" />
      <ReadingCheck findings={all} />
      <hr className="rule" />
      <FlashCheck />
      <hr className="rule" />
      <SyncCheck />
    </>
  );
}
