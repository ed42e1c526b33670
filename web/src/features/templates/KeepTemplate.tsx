import { Box, Dialog, Flex, Input, Textarea } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { SLOT_KINDS, STRETCHES, TEMPLATE_USES, formatOf, slotsOf, templateOf, withDescendants } from '@core/piece';
import type { Layer, Piece, Slot, SlotTiming, Template, TemplateUse } from '@core/piece';
import { sampleValues } from '@core/templates';
import type { SampleContent } from '@core/templates';
import { newId } from '../../platform/ids';
import { setView, useDesk } from '../../store/desk-store';
import { usePiece, useTimes } from '../../store/selectors';
import { DialogFrame } from '../../ui/DialogFrame';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Tick } from '../../ui/Tick';
import { keepTemplate } from './kept-templates';
import { SampleChoice } from './SampleChoice';
import { TemplatePreview } from './TemplatePreview';
import { tellFailure, useShowKept } from './use-kept-templates';
import { WORDS } from './words';

/** No layer shows it: it becomes the music. */
const SONG: Slot = {
  ...{ id: 'song', name: WORDS.song, kind: 'song', help: '', sample: '' },
  ...{ isNeeded: false, mirrors: false },
};

const TIMING: SlotTiming = { stretches: 'hold', unit: 'beats', leastReading: true, endsOnBeat: true };
const stop = (e: React.KeyboardEvent): void => {
  if (e.key !== 'Escape') e.stopPropagation();
};

/** Every text is a slot where none was made. */
function withSlots(layers: readonly Layer[]): Layer[] {
  if (layers.some((layer) => layer.slot)) return [...layers];
  const taken = new Set<string>();
  return layers.map((layer) => {
    if (layer.kind !== 'text') return layer;
    let slotId = 'text';
    for (let n = 2; taken.has(slotId); n++) slotId = `text-${n}`;
    taken.add(slotId);
    return { ...layer, slot: { slotId, part: 'text' } };
  });
}

/** Makes a template of a group, or of the whole piece, and keeps it for all pieces. */
export default function KeepTemplate({ groupId, onClose }: { groupId: string | null; onClose: () => void }) {
  const piece = usePiece();
  const times = useTimes();
  const shown = useDesk((s) => s.formatId);
  const showKept = useShowKept();
  const group = piece.layers.find((layer) => layer.id === groupId);
  const inside = useMemo(
    () => withSlots(groupId === null ? piece.layers : withDescendants(piece.layers, [groupId])),
    [piece.layers, groupId],
  );
  const before = group?.madeFrom;
  const [name, setName] = useState(before?.name ?? group?.name ?? piece.name);
  const [use, setUse] = useState<TemplateUse>(piece.template?.use ?? 'more');
  const [mood, setMood] = useState(piece.template?.mood ?? '');
  const [help, setHelp] = useState(piece.template?.help ?? '');
  const [slots, setSlots] = useState<Slot[]>(() => {
    const known = before?.slots ?? piece.template?.slots ?? [];
    return [...slotsOf(inside, known), ...known.filter(({ kind }) => kind === 'song')];
  });
  const [timing, setTiming] = useState<SlotTiming>(before?.timing ?? piece.template?.timing ?? TIMING);
  const [locksOthers, setLocksOthers] = useState(false);
  const [content, setContent] = useState<SampleContent>('sample');
  const [isBusy, setBusy] = useState(false);
  const template = useMemo((): Piece => {
    const fixed = locksOthers
      ? inside.filter((layer) => !layer.slot && layer.kind !== 'group').map((layer) => layer.id)
      : [];
    const rules: Template = { version: 1, use, mood, help, slots, fixed, timing };
    const own = new Map(inside.map((layer) => [layer.id, layer]));
    const source = { ...piece, layers: piece.layers.map((layer) => own.get(layer.id) ?? layer) };
    return templateOf(source, groupId, { name, template: rules }, times, newId);
  }, [piece, inside, groupId, name, use, mood, help, slots, timing, locksOthers, times]);
  const change = (id: string, more: Partial<Slot>) =>
    setSlots((old) => old.map((slot) => (slot.id === id ? { ...slot, ...more } : slot)));
  const keep = () => {
    setBusy(true);
    void keepTemplate(template)
      .then(({ version }) => {
        setView({ notice: WORDS.isKept(name, version) });
        showKept();
        onClose();
      })
      .catch((error: unknown) => {
        setBusy(false);
        tellFailure(error);
      });
  };
  return (
    <DialogFrame label={WORDS.keepTitle} maxW="860px" width="94vw" onClose={onClose}>
      <Dialog.Title className="title">{WORDS.keepTitle}</Dialog.Title>
      <p className="muted">{WORDS.keepIntro}</p>
      <Flex gap="20px" marginTop="10px">
        <Box flex="1" maxHeight="62vh" overflowY="auto" paddingRight="6px">
          <Labelled label={WORDS.name}>
            <Input
              aria-label={WORDS.name}
              value={name}
              maxLength={80}
              onKeyDown={stop}
              onChange={(e) => setName(e.target.value)}
            />
          </Labelled>
          <Labelled label={WORDS.use}>
            <Choice
              aria-label={WORDS.use}
              value={use}
              onChange={(e) => setUse(e.target.value as TemplateUse)} // options of the table
            >
              {Object.entries(TEMPLATE_USES).map(([id, label]) => (
                <option key={id} value={id}>
                  {label}
                </option>
              ))}
            </Choice>
          </Labelled>
          <Labelled label={WORDS.mood}>
            <Input
              aria-label={WORDS.mood}
              value={mood}
              maxLength={120}
              onKeyDown={stop}
              onChange={(e) => setMood(e.target.value)}
            />
          </Labelled>
          <Labelled label={WORDS.help}>
            <Textarea
              aria-label={WORDS.help}
              value={help}
              rows={2}
              maxLength={2000}
              onKeyDown={stop}
              onChange={(e) => setHelp(e.target.value)}
            />
          </Labelled>
          <hr className="rule" />
          {slots.length === 0 && <p className="muted">{WORDS.noSlots}</p>}
          {slots.map((slot) => (
            <Box key={slot.id} as="section" aria-label={WORDS.slotOf(slot.id)} marginBottom="10px">
              <Flex gap="6px" alignItems="center">
                <Input
                  aria-label={`${WORDS.slotOf(slot.id)}: ${WORDS.name}`}
                  value={slot.name}
                  maxLength={80}
                  onKeyDown={stop}
                  onChange={(e) => change(slot.id, { name: e.target.value || slot.id })}
                />
                <span className="muted">{SLOT_KINDS[slot.kind]}</span>
              </Flex>
              <Input
                aria-label={`${WORDS.slotOf(slot.id)}: ${WORDS.help}`}
                placeholder={WORDS.help}
                value={slot.help}
                maxLength={400}
                width="100%"
                marginTop="4px"
                onKeyDown={stop}
                onChange={(e) => change(slot.id, { help: e.target.value })}
              />
              <Flex gap="14px" marginTop="4px">
                <Tick
                  label={`${WORDS.slotOf(slot.id)}: ${WORDS.needed}`}
                  checked={slot.isNeeded}
                  onChange={(isNeeded) => change(slot.id, { isNeeded })}
                >
                  {WORDS.needed}
                </Tick>
                {slot.kind === 'text' && (
                  <Tick
                    label={`${WORDS.slotOf(slot.id)}: ${WORDS.mirrors}`}
                    checked={slot.mirrors}
                    onChange={(mirrors) => change(slot.id, { mirrors })}
                  >
                    {WORDS.mirrors}
                  </Tick>
                )}
              </Flex>
            </Box>
          ))}
          <Tick
            checked={slots.some(({ kind }) => kind === 'song')}
            onChange={(isOn) =>
              setSlots((old) => [...old.filter(({ kind }) => kind !== 'song'), ...(isOn ? [SONG] : [])])
            }
          >
            {WORDS.wantsSong}
          </Tick>
          <Tick checked={locksOthers} onChange={setLocksOthers}>
            {WORDS.lockOthers}
          </Tick>
          <hr className="rule" />
          <Box as="strong" fontWeight="600">
            {WORDS.timing}
          </Box>
          <Labelled label={WORDS.stretches}>
            <Choice
              aria-label={WORDS.stretches}
              value={timing.stretches}
              onChange={
                (e) => setTiming({ ...timing, stretches: e.target.value as SlotTiming['stretches'] }) // of the table
              }
            >
              {Object.entries(STRETCHES).map(([id, label]) => (
                <option key={id} value={id}>
                  {label}
                </option>
              ))}
            </Choice>
            <Choice
              aria-label={WORDS.unit}
              value={timing.unit}
              onChange={(e) => setTiming({ ...timing, unit: e.target.value as SlotTiming['unit'] })}
            >
              {Object.entries(WORDS.unitNames).map(([id, label]) => (
                <option key={id} value={id}>
                  {label}
                </option>
              ))}
            </Choice>
          </Labelled>
          <Tick checked={timing.leastReading} onChange={(leastReading) => setTiming({ ...timing, leastReading })}>
            {WORDS.leastReading}
          </Tick>
          <Tick checked={timing.endsOnBeat} onChange={(endsOnBeat) => setTiming({ ...timing, endsOnBeat })}>
            {WORDS.endsOnBeat}
          </Tick>
        </Box>
        <Box width="300px" flexShrink="0">
          <TemplatePreview
            template={template}
            format={formatOf(piece, shown)}
            wearer={piece}
            values={sampleValues(content, slots)}
            isWatched
            height={168}
          />
          <SampleChoice value={content} onChange={setContent} />
        </Box>
      </Flex>
      <Flex gap="8px" marginTop="14px">
        <Button variant="lamp" disabled={isBusy || name.trim() === '' || template.layers.length === 0} onClick={keep}>
          {WORDS.keep}
        </Button>
        <Button variant="quiet" onClick={onClose}>
          {WORDS.cancel}
        </Button>
      </Flex>
    </DialogFrame>
  );
}

function Labelled({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <Flex gap="8px" alignItems="center" marginBottom="6px">
      <Box width="96px" flexShrink="0" className="muted">
        {label}
      </Box>
      {children}
    </Flex>
  );
}
