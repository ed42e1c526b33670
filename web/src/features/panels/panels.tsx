import { Box, Flex } from '@chakra-ui/react';
import type { CheckId } from '@core/checks';
import { useState } from 'react';
import { DEFAULT_EASING } from '@core/motion';
import type { Easing } from '@core/motion';
import { propertyDefinition, trackOf, hasProperty } from '@core/piece';
import type { PropertyId } from '@core/piece';
import { edit, useDesk } from '../../store/desk-store';
import { songOf, useAnalysis, usePiece, useSelectedLayer } from '../../store/selectors';
import { ColourField } from '../../ui/ColourField';
import { NumberField } from '../../ui/NumberField';
import { Tabs } from '../../ui/Tabs';
import {
  copySelection,
  pasteSelection,
  reverseKeys,
  selectAllKeys,
  setEasing,
  stretchKeys,
  toggleKey,
} from '../desk/commands';
import { GestureSection } from '../gestures/GestureSection';
import { SmearTab } from '../gestures/SmearTab';
import { ReadingCheck } from '../run-through/ReadingCheck';
import { lookAt } from '../run-through/look-at';
import { useFindings } from '../run-through/use-findings';
import { addEntries } from '../layers/layer-kinds';
import { FileDrop } from './FileDrop';
import { SpreadSection } from './SpreadSection';
import { SyncCheck } from './SyncCheck';
import { Button } from '../../ui/Button';

export function PicturePanel() {
  return (
    <>
      <h2 className="title">Picture</h2>
      <p className="muted">Shapes start at the playhead’s beat and stand for two bars.</p>
      <Box display="grid" gridTemplateColumns="1fr 1fr" gap="6px" marginBottom="14px">
        {addEntries().map(({ id, label, icon, run }) => (
          <Button key={id} variant="soft" onClick={run}>
            {icon} {label}
          </Button>
        ))}
      </Box>
      <FileDrop wanted="picture" label="Choose a picture">
        <Box as="strong" color="text" fontWeight="600">
          Drop a picture here
        </Box>
        <br />
        PNG, JPEG, WebP, GIF
      </FileDrop>
    </>
  );
}

const QUICK: readonly { label: string; easing: Easing }[] = [
  { label: 'Soft', easing: DEFAULT_EASING },
  { label: 'Arrive', easing: { type: 'named', name: 'quint-out' } },
  { label: 'Leave', easing: { type: 'named', name: 'cubic-in' } },
  { label: 'Overshoot', easing: { type: 'named', name: 'back-out' } },
  { label: 'Spring', easing: { type: 'spring', oscillations: 2, damping: 0.35 } },
  { label: 'Bounce', easing: { type: 'bounce', bounces: 3, restitution: 0.55 } },
  { label: 'Linear', easing: { type: 'linear' } },
  { label: 'Hold', easing: { type: 'hold' } },
];

const MOTION_TABS = { gestures: 'Gestures', keyframes: 'Keyframes', beats: 'Spread', smear: 'Blur' } as const;

export function MotionPanel() {
  const [tab, setTab] = useState<keyof typeof MOTION_TABS>('gestures');
  return (
    <>
      <h2 className="title">Motion</h2>
      <Tabs label="Kinds of movement" tabs={MOTION_TABS} value={tab} onChange={setTab}>
        {tab === 'gestures' && <GestureSection />}
        {tab === 'keyframes' && <KeyframesTab />}
        {tab === 'beats' && <SpreadSection />}
        {tab === 'smear' && <SmearTab />}
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
      {!layer && <p className="muted">Select a layer. Keyframes fix its values at moments; between them it moves.</p>}
      {layer && (
        <>
          <p className="muted">Keyframe at the playhead for {layer.name}:</p>
          <Flex gap="5px" flexWrap="wrap">
            {moving
              .filter((p) => hasProperty(layer.kind, p))
              .map((p) => (
                <Button key={p} variant="soft" onClick={() => toggleKey(layer, p)}>
                  {propertyDefinition(p).label}
                </Button>
              ))}
          </Flex>
        </>
      )}
      <hr className="rule" />
      <Box as="p" className="muted" marginTop="0">
        {keys.length === 0
          ? 'No keyframes selected.'
          : `${keys.length} keyframe${keys.length === 1 ? '' : 's'} selected. Easing from here on:`}
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
          Select all keyframes
        </Button>
        <Button variant="soft" disabled={keys.length === 0} onClick={copySelection}>
          Copy
        </Button>
        <Button variant="soft" disabled={!layer} onClick={pasteSelection}>
          Paste here
        </Button>
        <Button variant="soft" disabled={keys.length < 2} onClick={reverseKeys}>
          Reverse
        </Button>
        <Button variant="soft" disabled={keys.length < 2} onClick={() => stretchKeys(2)}>
          Stretch ×2
        </Button>
        <Button variant="soft" disabled={keys.length < 2} onClick={() => stretchKeys(0.5)}>
          Squeeze ×½
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
        <h2 className="title">Sound</h2>
        <p className="muted">There is no music yet. Bring a song in on the first rung.</p>
      </>
    );
  const set = (change: Partial<typeof music>, gesture: string) =>
    edit([{ type: 'music.set', music: { ...music, ...change } }], gesture);
  return (
    <>
      <h2 className="title">Sound</h2>
      <p className="muted">How {songOf(piece)?.name.replace(/\.\w+$/, '')} plays in the piece.</p>
      <div className="prop">
        <span />
        <span className="name">Loudness</span>
        <NumberField
          label="Loudness"
          value={Number(music.volume.value) * 100}
          unit="%"
          min={0}
          max={400}
          onChange={(v, g) => set({ volume: { ...music.volume, value: v / 100 } }, g)}
        />
      </div>
      <div className="prop">
        <span />
        <span className="name">Fade in</span>
        <NumberField
          label="Fade in"
          value={music.fadeIn}
          unit="s"
          step={0.05}
          min={0}
          onChange={(v, g) => set({ fadeIn: v }, g)}
        />
      </div>
      <div className="prop">
        <span />
        <span className="name">Fade out</span>
        <NumberField
          label="Fade out"
          value={music.fadeOut}
          unit="s"
          step={0.05}
          min={0}
          onChange={(v, g) => set({ fadeOut: v }, g)}
        />
      </div>
      <div className="prop">
        <span />
        <span className="name">Starts in the piece at</span>
        <NumberField
          label="Song start"
          value={music.start}
          unit="s"
          step={0.01}
          decimals={3}
          onChange={(v, g) => set({ start: v }, g)}
        />
      </div>
      <div className="prop">
        <span />
        <span className="name">Leave out at the front</span>
        <NumberField
          label="Song trim"
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
  const piece = usePiece();
  const { background } = piece;
  const used = [
    ...new Set(
      piece.layers.flatMap((l) =>
        (['fill', 'stroke'] as const).flatMap((p) =>
          hasProperty(l.kind, p) && (p === 'fill' || Number(trackOf(l, 'strokeWidth')?.value) > 0)
            ? [String(trackOf(l, p)?.value).slice(0, 7).toLowerCase()]
            : [],
        ),
      ),
    ),
  ]; // colour tracks
  return (
    <>
      <h2 className="title">Colour</h2>
      <div className="prop" data-guide="background">
        <span />
        <span className="name">Background</span>
        <ColourField
          label="Background"
          value={background.value as string}
          onChange={(value, g) => edit([{ type: 'piece.setBackground', background: { ...background, value } }], g)}
        />
      </div>
      <hr className="rule" />
      <Box as="p" className="muted" marginTop="0">
        In the piece:
      </Box>
      <Flex gap="6px" flexWrap="wrap">
        {used.map((c) => (
          <span key={c} className="swatch" style={{ background: c }} title={c} />
        ))}
      </Flex>
    </>
  );
}

const TIMES: readonly CheckId[] = ['pins', 'seen', 'opening'];

export function RunThroughPanel() {
  const all = useFindings();
  // The others have lists of their own below, with what helps.
  const findings = all?.filter((f) => TIMES.includes(f.check)) ?? [];
  return (
    <>
      <h2 className="title">Run-through</h2>
      {all === null ? (
        <p className="muted">Looking…</p>
      ) : findings.length === 0 ? (
        <Box as="p" color="moss">
          Every pin holds and every layer is seen.
        </Box>
      ) : (
        <p className="muted">{findings.length} to look at:</p>
      )}
      {findings.map((f) => (
        <Button
          variant="bare"
          key={`${f.check}-${f.layerId ?? ''}-${f.text}`}
          className="list-row"
          onClick={() => lookAt(f)}
        >
          {f.text}
        </Button>
      ))}
      <hr className="rule" />
      <ReadingCheck findings={all} />
      <hr className="rule" />
      <SyncCheck />
    </>
  );
}
