import { Box, Dialog, Flex, Input } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { TEMPLATE_USES, formatOf } from '@core/piece';
import type { Piece, TemplateUse } from '@core/piece';
import { SHIPPED_TEMPLATES, sampleValues } from '@core/templates';
import type { SampleContent } from '@core/templates';
import { edit, useDesk } from '../../store/desk-store';
import { usePiece } from '../../store/selectors';
import { DialogFrame } from '../../ui/DialogFrame';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { FileButton } from '../../ui/FilePick';
import { OptionGrid } from '../../ui/OptionGrid';
import { LENGTHS, findTemplates } from './find-templates';
import type { LengthId } from './find-templates';
import { KeptRow, useOpenFile } from './KeptRow';
import { SlotFields } from './SlotFields';
import { SampleChoice } from './SampleChoice';
import { TemplatePreview } from './TemplatePreview';
import type { Wearer } from './TemplatePreview';
import { lengthOf, putInTemplate } from './template-commands';
import { useKeptTemplates } from './use-kept-templates';
import { WORDS } from './words';

/** Pixels a preview is high, by how many stand in a row of a frame's shape. */
const TILE_HEIGHT = { wide: 112, tall: 190, square: 132 } as const;
const COLUMNS = { wide: 3, tall: 5, square: 4 } as const;
const shapeOf = (width: number, height: number): keyof typeof TILE_HEIGHT =>
  width / height > 1.2 ? 'wide' : width / height < 0.7 ? 'tall' : 'square';
const CHOSEN_HEIGHT = { wide: 168, tall: 260, square: 220 } as const;

/** All templates, moving in the piece's own wardrobe and frame; one is filled here and put in. */
export default function TemplateGallery({ onClose }: { onClose: () => void }) {
  const piece = usePiece();
  const shown = useDesk((s) => s.formatId);
  const [search, setSearch] = useState('');
  const [use, setUse] = useState<TemplateUse | null>(null);
  const [length, setLength] = useState<LengthId | null>(null);
  const [formatId, setFormatId] = useState(shown);
  const [chosenId, setChosen] = useState<string | null>(null);
  const [hovered, setHovered] = useState<string | null>(null);
  const [filled, setFilled] = useState<Readonly<Record<string, string>>>({});
  const [content, setContent] = useState<SampleContent>('sample');
  const kept = useKeptTemplates();
  const openFile = useOpenFile();
  const { wardrobe, background, tempo, frameRate, media } = piece;
  const wearer = useMemo<Wearer>(
    () => ({ wardrobe, background, tempo, frameRate, media }),
    [wardrobe, background, tempo, frameRate, media],
  );
  const all = useMemo(() => [...(kept.data ?? []), ...SHIPPED_TEMPLATES], [kept.data]);
  const found = findTemplates(all, { search, use, length }, (one) => lengthOf(one).seconds);
  const format = formatOf(piece, formatId);
  const shape = shapeOf(format.width, format.height);
  const chosen = all.find(({ id }) => id === chosenId);
  const put = () => {
    if (chosen && putInTemplate(chosen, filled)) onClose();
  };
  return (
    <DialogFrame label={WORDS.templates} maxW="1180px" width="96vw" onClose={onClose}>
      <Flex gap="10px" alignItems="center" wrap="wrap" marginBottom="12px">
        <Dialog.Title className="title" margin="0">
          {WORDS.templates}
        </Dialog.Title>
        <Input
          aria-label={WORDS.search}
          placeholder={WORDS.searchHint}
          width="220px"
          value={search}
          onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}
          onChange={(e) => setSearch(e.target.value)}
        />
        <Choice
          aria-label={WORDS.use}
          value={use ?? ''}
          onChange={(e) => setUse((e.target.value || null) as TemplateUse | null)} // options of the table
        >
          <option value="">{WORDS.anyUse}</option>
          {Object.entries(TEMPLATE_USES).map(([id, label]) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </Choice>
        <Choice
          aria-label={WORDS.length}
          value={length ?? ''}
          onChange={(e) => setLength((e.target.value || null) as LengthId | null)} // options of the table
        >
          <option value="">{WORDS.anyLength}</option>
          {Object.keys(LENGTHS).map((id) => (
            <option key={id} value={id}>
              {WORDS.lengths[id as LengthId]}
            </option>
          ))}
        </Choice>
        <Choice aria-label={WORDS.frame} value={format.id} onChange={(e) => setFormatId(e.target.value)}>
          {piece.formats.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Choice>
        <Box flex="1" />
        <FileButton label={WORDS.openFile} accept=".estrella" onFiles={([file]) => file && openFile(file)}>
          <Button variant="quiet">{WORDS.openFile} …</Button>
        </FileButton>
        <Button variant="quiet" onClick={onClose}>
          {WORDS.close}
        </Button>
      </Flex>
      <Flex gap="18px" height="66vh">
        <Box flex="1" overflowY="auto" minWidth="0">
          {kept.isError && <p className="muted">{WORDS.couldNotBeReached}</p>}
          {found.length === 0 ? (
            <p className="muted">{WORDS.nothingFound}</p>
          ) : (
            <OptionGrid
              label={WORDS.templates}
              columns={COLUMNS[shape]}
              display="grid"
              gridTemplateColumns={`repeat(${COLUMNS[shape]}, minmax(0, 1fr))`}
              gap="10px"
            >
              {found.map((one) => (
                <Button
                  variant="bare"
                  key={one.id}
                  role="option"
                  hasTip={false}
                  className="template-tile"
                  aria-selected={one.id === chosenId}
                  aria-label={WORDS.choose(one.name)}
                  onPointerEnter={() => setHovered(one.id)}
                  onPointerLeave={() => setHovered(null)}
                  onFocus={() => setHovered(one.id)}
                  onClick={() => setChosen(one.id)}
                  onDoubleClick={put}
                >
                  <TemplatePreview
                    template={one}
                    format={format}
                    wearer={wearer}
                    values={NO_VALUES}
                    isWatched={hovered === one.id}
                    height={TILE_HEIGHT[shape]}
                  />
                  <span className="template-name">{one.name}</span>
                  <span className="muted">{one.template?.mood}</span>
                </Button>
              ))}
            </OptionGrid>
          )}
        </Box>
        <Box width="300px" flexShrink="0" overflowY="auto" className="template-chosen">
          {chosen?.template ? (
            <form
              onSubmit={(e) => {
                e.preventDefault();
                put();
              }}
            >
              <TemplatePreview
                template={chosen}
                format={format}
                wearer={wearer}
                values={{ ...sampleValues(content, chosen.template.slots), ...filled }}
                isWatched
                height={CHOSEN_HEIGHT[shape]}
              />
              <Box as="h3" fontWeight="600" fontSize="16px" marginTop="8px">
                {chosen.name}
              </Box>
              <p className="muted">{chosen.template.help}</p>
              <Length template={chosen} />
              <SlotFields
                key={chosen.id}
                slots={chosen.template.slots}
                values={filled}
                tooLong={[]}
                autoFocus
                onChange={(slotId, value, before) => {
                  if (before.length > 0) edit([...before]);
                  setFilled((old) => ({ ...old, [slotId]: value }));
                }}
              />
              <SampleChoice value={content} onChange={setContent} />
              <Button type="submit" variant="lamp" padding="7px 18px">
                {WORDS.putIn}
              </Button>
              <p className="muted">{WORDS.putInHere}</p>
              {kept.data?.includes(chosen) && <KeptRow template={chosen} onGone={() => setChosen(null)} />}
            </form>
          ) : (
            <>
              <p className="muted">{WORDS.intro}</p>
              <p className="muted">{WORDS.chooseOne}</p>
            </>
          )}
        </Box>
      </Flex>
    </DialogFrame>
  );
}

const NO_VALUES: Readonly<Record<string, string>> = {};

function Length({ template }: { template: Piece }) {
  const { beats, seconds } = lengthOf(template);
  return (
    <Box className="mono muted" fontSize="12px" marginBottom="8px">
      {WORDS.beatsAndSeconds(beats, seconds)}
    </Box>
  );
}
