import { Box, Flex, Textarea } from '@chakra-ui/react';
import { useState } from 'react';
import { captionLayers } from '@core/piece';
import { freeMoment } from '@core/time';
import { playhead } from '../../platform/clock';
import { edit, selectLayers, useDesk } from '../../store/desk-store';
import { usePiece, useTimes } from '../../store/selectors';
import { ColourField } from '../../ui/ColourField';
import { NumberField } from '../../ui/NumberField';
import { FontChooser } from '../type/FontChooser';
import { PLACES, addCaption, captionStyle, pasteCaptions, saveCaptions, setCaptionStyle } from './caption-commands';
import { Choice } from '../../ui/Choice';
import { Button } from '../../ui/Button';
import { FileButton } from '../../ui/FilePick';
import { LongList } from '../../ui/LongList';
import { WORDS } from './words';

/** Pixels a caption of one line takes. */
const CAPTION_ROW = 66;

/** Captions: lines with their times, one look for all. */
export function CaptionSheet() {
  const piece = usePiece();
  const times = useTimes();
  const selected = useDesk((s) => s.selectedLayers);
  const captions = captionLayers(piece, times);
  const [pasted, setPasted] = useState<string | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const style = captionStyle(piece, times);
  const take = (text: string) => {
    setSaid(pasteCaptions(text));
    setPasted(null);
  };
  const open = (file: File) => {
    if (file.size > 2_000_000) return setSaid(WORDS.thisFileIsToo);
    void file.text().then((text) => (text.includes('-->') ? take(text) : setSaid(WORDS.hasNoCaptionsIn(file.name))));
  };
  return (
    <>
      <Flex gap="5px" flexWrap="wrap" marginBottom="6px">
        <Button variant="lamp" padding="5px 14px" onClick={addCaption}>
          {WORDS.newCaption}
        </Button>
        <Button variant="soft" onClick={() => setPasted('')}>
          {WORDS.paste}
        </Button>
        <FileButton label={WORDS.openCaptions} accept=".srt,.vtt,text/vtt" onFiles={([file]) => file && open(file)}>
          <Button variant="soft">{WORDS.open}</Button>
        </FileButton>
        {captions.length > 0 && (
          <>
            <Button variant="quiet" onClick={() => saveCaptions('srt')}>
              {WORDS.saveSrt}
            </Button>
            <Button variant="quiet" onClick={() => saveCaptions('vtt')}>
              {WORDS.saveWebvtt}
            </Button>
          </>
        )}
      </Flex>
      {pasted !== null && (
        <>
          <Textarea
            aria-label={WORDS.captionsToPutIn}
            autoFocus
            rows={6}
            value={pasted}
            placeholder={WORDS.oneLineEachOr}
            width="100%"
            onKeyDown={(e) => e.stopPropagation()}
            onChange={(e) => setPasted(e.target.value)}
          />
          <Button variant="soft" margin="4px 0 8px" disabled={pasted.trim() === ''} onClick={() => take(pasted)}>
            {WORDS.putThemIn}
          </Button>
        </>
      )}
      {said && (
        <p role="status" className="muted">
          {said}
        </p>
      )}
      {captions.length === 0 ? (
        <p className="muted">{WORDS.typeCaptionsPasteThem}</p>
      ) : (
        <>
          <Flex
            gap="5px"
            alignItems="center"
            flexWrap="wrap"
            marginBottom="8px"
            role="group"
            aria-label={WORDS.lookOfAllCaptions}
          >
            <FontChooser
              family={style.family}
              sample={captions[0]?.content.text ?? ''}
              onChoose={(family, before) => setCaptionStyle({ family }, null, before)}
            />
            <NumberField
              label={WORDS.sizeOfTheCaptions}
              value={style.sizeShare * 100}
              unit="%"
              min={1}
              max={20}
              step={0.1}
              decimals={1}
              width={62}
              onChange={(v, g) => setCaptionStyle({ sizeShare: v / 100 }, g)}
            />
            <ColourField
              compact
              label={WORDS.colourOfTheCaptions}
              value={style.colour}
              onChange={(colour, g) => setCaptionStyle({ colour }, g)}
            />
            <Choice
              aria-label={WORDS.placeOfTheCaptions}
              value={style.place}
              onChange={(e) => setCaptionStyle({ place: e.target.value as keyof typeof PLACES })}
            >
              {Object.entries(PLACES).map(([id, label]) => (
                <option key={id} value={id}>
                  {label}
                </option>
              ))}
            </Choice>
            <Button
              variant="soft"
              aria-pressed={style.hasBand}
              onClick={() => setCaptionStyle({ hasBand: !style.hasBand })}
            >
              {WORDS.band}
            </Button>
            <Button
              variant="soft"
              aria-pressed={style.highlight !== null}
              onClick={() => setCaptionStyle({ highlight: style.highlight ? null : '#FFB74A' })}
            >
              {WORDS.wordByWord}
            </Button>
          </Flex>
          <LongList label={WORDS.captions} items={captions} keyOf={(layer) => layer.id} rowHeight={CAPTION_ROW}>
            {(layer, i) => {
              const [start, end] = [times.timeOf(layer.start), times.timeOf(layer.end)];
              return (
                <Box className={`list-row${selected.includes(layer.id) ? ' on' : ''}`} display="block">
                  <Flex gap="4px" alignItems="center">
                    <Button
                      variant="quiet"
                      className="mono"
                      padding="0"
                      aria-label={WORDS.goToCaption(i + 1)}
                      onClick={() => {
                        selectLayers([layer.id]);
                        playhead.set(start + Math.min(0.2, (end - start) / 2));
                      }}
                    >
                      {i + 1}
                    </Button>
                    <NumberField
                      label={WORDS.captionIn(i + 1)}
                      value={start}
                      unit="s"
                      step={0.02}
                      decimals={3}
                      min={0}
                      width={76}
                      onChange={(v, g) =>
                        v < end - 0.02 && edit([{ type: 'layer.setSpan', id: layer.id, start: freeMoment(v) }], g)
                      }
                    />
                    <NumberField
                      label={WORDS.captionOut(i + 1)}
                      value={end}
                      unit="s"
                      step={0.02}
                      decimals={3}
                      min={0}
                      width={76}
                      onChange={(v, g) =>
                        v > start + 0.02 && edit([{ type: 'layer.setSpan', id: layer.id, end: freeMoment(v) }], g)
                      }
                    />
                    <Button
                      variant="quiet"
                      padding="0"
                      marginLeft="auto"
                      aria-label={WORDS.deleteCaption(i + 1)}
                      onClick={() => edit([{ type: 'layer.remove', ids: [layer.id] }])}
                    >
                      ×
                    </Button>
                  </Flex>
                  <Textarea
                    aria-label={WORDS.caption(i + 1)}
                    rows={layer.content.text.split('\n').length}
                    value={layer.content.text}
                    width="100%"
                    resize="none"
                    background="none"
                    padding="2px 0"
                    onFocus={() => selectLayers([layer.id])}
                    onKeyDown={(e) => e.stopPropagation()}
                    onChange={(e) =>
                      edit(
                        [{ type: 'layer.setContent', id: layer.id, content: { text: e.target.value } }],
                        `caption-${layer.id}`,
                      )
                    }
                  />
                </Box>
              );
            }}
          </LongList>
        </>
      )}
    </>
  );
}
