import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { ellipsePath, roundedRectanglePath } from '@core/geometry';
import { MASK_VALUE_IDS, hasProperty, maskTrackId, maskValue } from '@core/piece';
import type { Layer, Mask } from '@core/piece';
import { valueNow } from '../desk/commands';
import { transformOutline } from '@core/text';
import { newId } from '../../platform/ids';
import { edit, setView, useDesk, openDocument } from '../../store/desk-store';
import { useSelectedLayer } from '../../store/selectors';
import { usePlayheadTick } from '../../store/use-playhead-tick';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Tick } from '../../ui/Tick';
import { LayerChoice } from '../ties/LayerChoice';
import { FormsList } from '../canvas/FormsSection';
import { withValue } from './track-keys';
import { ValueRow } from './ValueRow';
import { useOwnInFormat } from './use-own-in-format';
import { WORDS } from './words';

/** Sides of a new mask where the layer has none of its own, pixels of the lead format. */
const NEW_SIDES: readonly [number, number] = [400, 300];

function newMask(layer: Layer, shape: 'rectangle' | 'ellipse'): Mask {
  const own = hasProperty(layer.kind, 'dimensions') ? valueNow(layer, 'dimensions') : null;
  const [w, h] = Array.isArray(own) ? own : NEW_SIDES;
  // Both stand about their middle; a mask's path begins at its left top corner.
  const path = shape === 'rectangle' ? roundedRectanglePath(w, h, 0) : ellipsePath(w, h);
  return {
    id: newId(),
    name: WORDS.maskNumber(layer.masks.length + 1),
    mode: 'add',
    inverted: false,
    d: transformOutline(path, 1, 1, w / 2, h / 2),
    box: [w, h],
    rule: 'nonzero',
    forms: [],
    tracks: {},
  };
}

/** By what the selected layer is seen: masks of its own, and another layer. */
export function MasksTab() {
  usePlayheadTick();
  const layer = useSelectedLayer();
  const [open, setOpen] = useState<string | null>(null);
  if (!layer) return <p className="muted">{WORDS.selectALayer}</p>;
  const add = (shape: 'rectangle' | 'ellipse') => {
    const mask = newMask(layer, shape);
    edit([{ type: 'mask.put', layerId: layer.id, mask }]);
    setOpen(mask.id);
    return mask.id;
  };
  // It begins as a rectangle, so that the canvas knows where the mask's own pixels lie.
  const draw = () =>
    setView({ drawingFor: { kind: 'mask', layerId: layer.id, maskId: add('rectangle') }, notice: WORDS.howToDraw });
  return (
    <>
      <Matte layer={layer} />
      <hr className="rule" />
      <Flex gap="6px" alignItems="center" role="group" aria-label={WORDS.addAMask}>
        <Box as="strong" flex="1" fontWeight="600">
          {WORDS.masks}
        </Box>
        <Button variant="soft" disabled={layer.locked} onClick={() => add('rectangle')}>
          {WORDS.rectangle}
        </Button>
        <Button variant="soft" disabled={layer.locked} onClick={() => add('ellipse')}>
          {WORDS.ellipse}
        </Button>
        <Button variant="soft" disabled={layer.locked} onClick={draw}>
          {WORDS.drawn}
        </Button>
      </Flex>
      {layer.masks.length === 0 && <p className="muted">{WORDS.howMasksWork}</p>}
      <Box role="list" aria-label={WORDS.masks} marginTop="8px">
        {layer.masks.map((mask) => (
          <MaskRow
            key={mask.id}
            layer={layer}
            mask={mask}
            isOpen={open === mask.id}
            onOpen={() => setOpen(open === mask.id ? null : mask.id)}
          />
        ))}
      </Box>
    </>
  );
}

function Matte({ layer }: { layer: Layer }) {
  const { matte } = layer;
  const set = (next: Layer['matte']) => edit([{ type: 'layer.setMatte', id: layer.id, matte: next }]);
  return (
    <section aria-label={WORDS.matte}>
      <div className="prop">
        <span />
        <span className="name">{WORDS.seenThrough}</span>
        <LayerChoice
          label={WORDS.seenThrough}
          none={WORDS.nothing}
          layer={layer}
          value={matte?.layerId ?? null}
          onChange={(layerId) =>
            set(layerId === null ? null : { channel: 'alpha', inverted: false, ...matte, layerId })
          }
        />
      </div>
      {matte ? (
        <div className="prop">
          <span />
          <span className="name muted">{WORDS.channel}</span>
          <Flex gap="8px" alignItems="center">
            <Choice
              aria-label={WORDS.channel}
              value={matte.channel}
              onChange={(e) => set({ ...matte, channel: e.target.value as keyof typeof WORDS.channels })}
            >
              {Object.entries(WORDS.channels).map(([id, label]) => (
                <option key={id} value={id}>
                  {label}
                </option>
              ))}
            </Choice>
            <Tick checked={matte.inverted} onChange={(inverted) => set({ ...matte, inverted })}>
              {WORDS.inverted}
            </Tick>
          </Flex>
        </div>
      ) : (
        <p className="muted">{WORDS.howMattesWork}</p>
      )}
    </section>
  );
}

/** Shows the points of a form of a mask, with the mask as that form. */
function shapeForm(layerId: string, maskId: string, formId: string, number: number): void {
  // As it is by now: the form was put in just before.
  const layer = openDocument()?.piece.layers.find((other) => other.id === layerId);
  const mask = layer?.masks.find((other) => other.id === maskId);
  if (!mask) return;
  const form = withValue(mask.tracks.form, number);
  edit([{ type: 'mask.put', layerId, mask: { ...mask, tracks: { ...mask.tracks, form } } }]);
  setView({ shaping: { layerId, maskId, formId } });
}

function MaskRow({ layer, mask, isOpen, onOpen }: { layer: Layer; mask: Mask; isOpen: boolean; onOpen: () => void }) {
  const isShaping = useDesk((s) => s.shaping?.maskId === mask.id);
  const own = useOwnInFormat(layer);
  const shapedForm = useDesk((s) => (s.shaping?.maskId === mask.id ? (s.shaping.formId ?? null) : null));
  const put = (change: Partial<Mask>, gesture: string | null = null) =>
    edit([{ type: 'mask.put', layerId: layer.id, mask: { ...mask, ...change } }], gesture);
  return (
    <Box role="listitem" className="list-row" display="block">
      <Flex alignItems="center" gap="6px">
        <Button
          variant="quiet"
          hasTip={false}
          flex="1"
          justifyContent="flex-start"
          aria-expanded={isOpen}
          aria-label={isOpen ? WORDS.close(mask.name) : WORDS.open(mask.name)}
          onClick={onOpen}
        >
          {mask.name}
        </Button>
        <Choice
          aria-label={WORDS.mode(mask.name)}
          value={mask.mode}
          disabled={layer.locked}
          onChange={(e) => put({ mode: e.target.value as Mask['mode'] })} // a value of the table
        >
          {Object.entries(WORDS.modes).map(([id, label]) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </Choice>
        <Button
          variant="quiet"
          padding="0 4px"
          aria-label={WORDS.remove(mask.name)}
          disabled={layer.locked}
          onClick={() => edit([{ type: 'mask.remove', layerId: layer.id, id: mask.id }])}
        >
          ×
        </Button>
      </Flex>
      {isOpen && (
        <>
          {MASK_VALUE_IDS.filter((id) => id !== 'form' || mask.forms.length > 0).map((id) => {
            const { label, ...value } = maskValue(id);
            return (
              <ValueRow
                key={id}
                name={label}
                label={WORDS.valueOf(label, mask.name)}
                track={mask.tracks[id]}
                {...value}
                disabled={layer.locked}
                own={own(maskTrackId(mask.id, id))}
                onChange={(track, gesture) => put({ tracks: { ...mask.tracks, [id]: track } }, gesture)}
              />
            );
          })}
          <FormsList
            d={mask.d}
            forms={mask.forms}
            shaped={shapedForm}
            disabled={layer.locked}
            onPut={(forms) => put({ forms })}
            onShape={(formId, number) => shapeForm(layer.id, mask.id, formId, number)}
          />
          <Button
            variant="soft"
            aria-pressed={isShaping}
            disabled={layer.locked}
            onClick={() => setView({ shaping: isShaping ? null : { layerId: layer.id, maskId: mask.id } })}
          >
            {isShaping ? WORDS.doneWithPoints : WORDS.editPoints}
          </Button>
          <Tick checked={mask.inverted} disabled={layer.locked} onChange={(inverted) => put({ inverted })}>
            {WORDS.inverted}
          </Tick>
        </>
      )}
    </Box>
  );
}
